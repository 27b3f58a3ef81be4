package org.mossbank.server.grading;

import jakarta.validation.Valid;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
class GradingController {
    private final GradingService grading;
    private final PlanService plans;

    GradingController(GradingService grading, PlanService plans) {
        this.grading = grading;
        this.plans = plans;
    }

    @GetMapping("/api/studies/{studyId}/grading")
    GradingProgress progress(@PathVariable UUID studyId) {
        return grading.progress(studyId);
    }

    @GetMapping("/api/studies/{studyId}/prompts/{promptId}/grades")
    PromptGrades ofPrompt(@PathVariable UUID studyId, @PathVariable UUID promptId) {
        return grading.ofPrompt(studyId, promptId);
    }

    @PostMapping("/api/studies/{studyId}/round/close")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void close(@PathVariable UUID studyId) {
        grading.close(studyId);
    }

    @PostMapping("/api/studies/{studyId}/plan")
    PlanService.PlanView plan(@PathVariable UUID studyId, @Valid @RequestBody PlanService.PlanRequest request) {
        return plans.preview(studyId, request);
    }

    @PostMapping("/api/studies/{studyId}/round")
    @ResponseStatus(HttpStatus.CREATED)
    PlanService.PlanView open(@PathVariable UUID studyId, @Valid @RequestBody PlanService.PlanRequest request) {
        return plans.open(studyId, request);
    }
}
