package org.mossbank.server.recommendation;

import org.mossbank.server.acts.OnRecord;
import org.mossbank.server.ids.StudyId;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
class RecommendationController {
    private final RecommendationService recommendation;
    private final LookService looks;
    private final OnRecord record;

    RecommendationController(RecommendationService recommendation, LookService looks, OnRecord record) {
        this.looks = looks;
        this.record = record;
        this.recommendation = recommendation;
    }

    @GetMapping("/api/studies/{studyId}/recommendation")
    RecommendationReport report(@PathVariable StudyId studyId) {
        return recommendation.report(studyId);
    }

    @GetMapping("/api/studies/{studyId}/looks")
    LookService.LooksView looks(@PathVariable StudyId studyId) {
        return looks.looks(studyId);
    }

    @PostMapping("/api/studies/{studyId}/looks")
    @ResponseStatus(HttpStatus.CREATED)
    LookTaken take(@PathVariable StudyId studyId) {
        return record.of(studyId, () -> looks.take(studyId));
    }

    @GetMapping("/api/studies/{studyId}/looks/{number}")
    RecommendationReport seen(@PathVariable StudyId studyId, @PathVariable int number) {
        return looks.seen(studyId, number);
    }

    @GetMapping("/api/studies/{studyId}/looks/{number}/robustness")
    RobustnessReport hungOn(@PathVariable StudyId studyId, @PathVariable int number) {
        return looks.robustness(studyId, number);
    }

    @GetMapping("/api/studies/{studyId}/recommendation/robustness")
    RobustnessReport robustness(@PathVariable StudyId studyId) {
        return recommendation.robustness(studyId);
    }
}
