package org.mossbank.server.plan;

import jakarta.validation.Valid;
import org.mossbank.server.acts.OnRecord;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
class PlanController {
    private final PlanService plans;
    private final OnRecord record;

    PlanController(PlanService plans, OnRecord record) {
        this.record = record;
        this.plans = plans;
    }

    /** Shows who would grade what, and opens nothing. */
    @PostMapping("/api/studies/{studyId}/plan")
    PlanView plan(@PathVariable StudyId studyId, @Valid @RequestBody PlanRequest request) {
        return plans.preview(studyId, request);
    }

    /** Opens the round: lays sheets before raters. */
    @MayRefuse({ProblemType.NOT_READY, ProblemType.ROUND_OPENED})
    @PostMapping("/api/studies/{studyId}/round")
    @ResponseStatus(HttpStatus.CREATED)
    PlanView open(@PathVariable StudyId studyId, @Valid @RequestBody PlanRequest request) {
        return record.of(studyId, () -> plans.open(studyId, request));
    }
}
