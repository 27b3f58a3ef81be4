package org.mossbank.server.study;

import jakarta.validation.Valid;
import java.util.List;
import org.mossbank.server.acts.OnRecord;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.progress.StepState;
import org.mossbank.server.shared.LargeBody;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@LargeBody(LargeBody.FORM)
class StudyController {
    private final StudyService studies;
    private final BriefService briefs;
    private final ForecastService forecasts;
    private final OnRecord record;

    StudyController(StudyService studies, BriefService briefs, ForecastService forecasts, OnRecord record) {
        this.record = record;
        this.studies = studies;
        this.briefs = briefs;
        this.forecasts = forecasts;
    }

    @GetMapping("/api/studies")
    List<StudyService.StudySummary> mine() {
        return studies.mine();
    }

    @PostMapping("/api/studies")
    @ResponseStatus(HttpStatus.CREATED)
    StudyService.StudySummary begin(@Valid @RequestBody StudyService.BeginStudy request) {
        return studies.begin(request);
    }

    @GetMapping("/api/studies/{studyId}")
    StudyService.StudySummary one(@PathVariable StudyId studyId) {
        return studies.one(studyId);
    }

    @GetMapping("/api/studies/{studyId}/steps")
    List<StepState> steps(@PathVariable StudyId studyId) {
        return studies.steps(studyId);
    }

    @GetMapping("/api/studies/{studyId}/brief")
    BriefService.BriefView brief(@PathVariable StudyId studyId) {
        return briefs.get(studyId);
    }

    @PutMapping("/api/studies/{studyId}/brief")
    BriefService.BriefView write(@PathVariable StudyId studyId, @Valid @RequestBody BriefService.WriteBrief request) {
        return briefs.write(studyId, request);
    }

    @PostMapping("/api/studies/{studyId}/brief/close")
    BriefService.BriefView close(@PathVariable StudyId studyId, @Valid @RequestBody BriefService.CloseBrief request) {
        KeptForecast forecast = request.size() == null ? null : forecasts.kept(studyId, request.size());
        return record.of(studyId, () -> briefs.close(studyId, forecast));
    }

    @PostMapping("/api/studies/{studyId}/brief/reopen")
    BriefService.BriefView reopen(@PathVariable StudyId studyId, @Valid @RequestBody BriefService.ReopenBrief request) {
        return record.of(studyId, () -> briefs.reopen(studyId, request));
    }

    @PostMapping("/api/studies/{studyId}/forecast")
    ForecastService.ForecastView forecast(
            @PathVariable StudyId studyId, @Valid @RequestBody ForecastService.PlannedSize size) {
        return forecasts.forecast(studyId, size);
    }

    @PostMapping("/api/studies/{studyId}/forecast/withholding")
    List<ForecastService.WithholdingView> withholding(
            @PathVariable StudyId studyId, @Valid @RequestBody ForecastService.PlannedSize size) {
        return forecasts.withholding(studyId, size);
    }

    @PostMapping("/api/studies/{studyId}/forecast/uses")
    List<ForecastService.WayView> uses(
            @PathVariable StudyId studyId, @Valid @RequestBody ForecastService.PlannedSize size) {
        return forecasts.uses(studyId, size);
    }
}
