package org.mossbank.server.study;

import jakarta.validation.Valid;
import java.util.List;
import org.mossbank.server.acts.OnRecord;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.progress.StepState;
import org.mossbank.server.shared.LargeBody;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springdoc.core.annotations.ParameterObject;
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
    private final MyStudies own;

    StudyController(
            StudyService studies, BriefService briefs, ForecastService forecasts, OnRecord record, MyStudies own) {
        this.own = own;
        this.record = record;
        this.studies = studies;
        this.briefs = briefs;
        this.forecasts = forecasts;
    }

    /** Studies that one leads or grades in. */
    @MayRefuse(ProblemType.INVALID_REQUEST)
    @GetMapping("/api/studies")
    List<StudyService.StudySummary> mine() {
        return studies.mine();
    }

    /** One's studies to look through, a page of 25. */
    @GetMapping("/api/my-studies")
    MyStudies.StudyLines page(@Valid @ParameterObject MyStudies.StudyQuery query) {
        return own.page(query);
    }

    /** Puts a study out of the way of those who look through theirs. */
    @PostMapping("/api/studies/{studyId}/put-away")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void putAway(@PathVariable StudyId studyId) {
        studies.putAway(studyId);
    }

    /** Brings a study back that was put away. */
    @PostMapping("/api/studies/{studyId}/bring-back")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void bringBack(@PathVariable StudyId studyId) {
        studies.bringBack(studyId);
    }

    /** Begins a study. */
    @PostMapping("/api/studies")
    @ResponseStatus(HttpStatus.CREATED)
    StudyService.StudySummary begin(@Valid @RequestBody StudyService.BeginStudy request) {
        return studies.begin(request);
    }

    /** A study with its title and its stage. */
    @GetMapping("/api/studies/{studyId}")
    StudyService.StudySummary one(@PathVariable StudyId studyId) {
        return studies.one(studyId);
    }

    /** How far each step of a study is, in a line. */
    @GetMapping("/api/studies/{studyId}/steps")
    List<StepState> steps(@PathVariable StudyId studyId) {
        return studies.steps(studyId);
    }

    /** The brief with its rule, and how often it was opened again. */
    @GetMapping("/api/studies/{studyId}/brief")
    BriefService.BriefView brief(@PathVariable StudyId studyId) {
        return briefs.get(studyId);
    }

    /** Writes the brief while it is open. */
    @MayRefuse(ProblemType.BRIEF_CLOSED)
    @PutMapping("/api/studies/{studyId}/brief")
    BriefService.BriefView write(@PathVariable StudyId studyId, @Valid @RequestBody BriefService.WriteBrief request) {
        return briefs.write(studyId, request);
    }

    /** Closes the brief, with what such a study is thought to show. */
    @MayRefuse({ProblemType.EXPECTATION_FIRST, ProblemType.NOT_READY})
    @PostMapping("/api/studies/{studyId}/brief/close")
    BriefService.BriefView close(@PathVariable StudyId studyId, @Valid @RequestBody BriefService.CloseBrief request) {
        KeptForecast forecast = request.size() == null ? null : forecasts.kept(studyId, request.size());
        return record.of(studyId, () -> briefs.close(studyId, forecast));
    }

    /** Opens the brief again, with a reason. */
    @MayRefuse({ProblemType.NOT_READY, ProblemType.ROUND_CLOSED})
    @PostMapping("/api/studies/{studyId}/brief/reopen")
    BriefService.BriefView reopen(@PathVariable StudyId studyId, @Valid @RequestBody BriefService.ReopenBrief request) {
        return record.of(studyId, () -> briefs.reopen(studyId, request));
    }

    /** Forecasts each outcome's chance at several leads, for a study of a size. */
    @PostMapping("/api/studies/{studyId}/forecast")
    ForecastService.ForecastView forecast(
            @PathVariable StudyId studyId, @Valid @RequestBody ForecastService.PlannedSize size) {
        return forecasts.forecast(studyId, size);
    }

    /** How often each reading of the floor withholds, for several sorts of raters. */
    @PostMapping("/api/studies/{studyId}/forecast/withholding")
    List<ForecastService.WithholdingView> withholding(
            @PathVariable StudyId studyId, @Valid @RequestBody ForecastService.PlannedSize size) {
        return forecasts.withholding(studyId, size);
    }

    /** Which number of prompts, raters and attempts finds most in given hours. */
    @PostMapping("/api/studies/{studyId}/forecast/uses")
    List<ForecastService.WayView> uses(
            @PathVariable StudyId studyId, @Valid @RequestBody ForecastService.PlannedSize size) {
        return forecasts.uses(studyId, size);
    }
}
