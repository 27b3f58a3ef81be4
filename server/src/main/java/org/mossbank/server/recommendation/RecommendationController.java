package org.mossbank.server.recommendation;

import org.mossbank.server.ids.StudyId;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

@RestController
class RecommendationController {
    private final RecommendationService recommendation;

    RecommendationController(RecommendationService recommendation) {
        this.recommendation = recommendation;
    }

    @GetMapping("/api/studies/{studyId}/recommendation")
    RecommendationReport report(@PathVariable StudyId studyId) {
        return recommendation.report(studyId);
    }

    @GetMapping("/api/studies/{studyId}/recommendation/robustness")
    RobustnessReport robustness(@PathVariable StudyId studyId) {
        return recommendation.robustness(studyId);
    }
}
