package org.mossbank.server.trait;

import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

@RestController
class TraitController {
    private final TraitService traits;

    TraitController(TraitService traits) {
        this.traits = traits;
    }

    /** What candidates are good and bad at, by what raters said beside levels; hidden while raters grade. */
    @MayRefuse({ProblemType.STANDINGS_HIDDEN, ProblemType.NOT_READY})
    @GetMapping("/api/studies/{studyId}/recommendation/traits")
    TraitReport traits(@PathVariable StudyId studyId) {
        return traits.of(studyId);
    }
}
