package org.mossbank.server.acts;

import java.util.List;
import org.mossbank.server.ids.StudyId;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

@RestController
class ActsController {
    private final ActsService acts;

    ActsController(ActsService acts) {
        this.acts = acts;
    }

    /** The record of acts: what was done that may change the outcome, oldest first. */
    @GetMapping("/api/studies/{studyId}/acts")
    List<ActView> ofStudy(@PathVariable StudyId studyId) {
        return acts.ofStudy(studyId);
    }
}
