package org.mossbank.server.oversight;

import org.mossbank.server.ids.StudyId;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

@RestController
class OversightController {
    private final OversightService oversight;

    OversightController(OversightService oversight) {
        this.oversight = oversight;
    }

    /** How raters work: pace, what looks unlike judging, guesses. For a lead who does not grade. */
    @GetMapping("/api/studies/{studyId}/oversight")
    OversightView oversight(@PathVariable StudyId studyId) {
        return oversight.oversight(studyId);
    }
}
