package org.mossbank.server.succession;

import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

@RestController
class SinceController {
    private final SinceService since;

    SinceController(SinceService since) {
        this.since = since;
    }

    /** Which study this one follows, if it follows one. */
    @GetMapping("/api/studies/{studyId}/follows")
    SinceService.FollowsView follows(@PathVariable StudyId studyId) {
        return since.follows(studyId);
    }

    /** What changed since the study before, and whether the ruler moved; hidden while raters grade. */
    @MayRefuse({ProblemType.STANDINGS_HIDDEN, ProblemType.NOT_READY})
    @GetMapping("/api/studies/{studyId}/recommendation/since")
    SinceReport since(@PathVariable StudyId studyId) {
        return since.since(studyId);
    }
}
