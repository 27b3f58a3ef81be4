package org.mossbank.server.evidence;

import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/studies/{studyId}")
class EvidenceController {
    private final EvidenceService evidence;

    EvidenceController(EvidenceService evidence) {
        this.evidence = evidence;
    }

    /** What works by trial: by answer, candidate and kind. */
    @MayRefuse(ProblemType.BUSY)
    @GetMapping("/evidence")
    EvidenceReport of(@PathVariable StudyId studyId) {
        return evidence.of(studyId);
    }

    /** Where raters and trials contradict each other, and what seeing trials did; hidden while raters grade. */
    @MayRefuse({ProblemType.STANDINGS_HIDDEN, ProblemType.NOT_READY, ProblemType.BUSY})
    @GetMapping("/recommendation/evidence")
    GradedEvidence graded(@PathVariable StudyId studyId) {
        return evidence.graded(studyId);
    }
}
