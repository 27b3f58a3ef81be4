package org.mossbank.server.recommendation;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.Size;
import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.acts.OnRecord;
import org.mossbank.server.audit.AuditSort;
import org.mossbank.server.audit.TakenAway;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptContent;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;

@RestController
class RecommendationController {
    private final TakenAway taken;
    private final RecommendationService recommendation;
    private final LookService looks;
    private final OnRecord record;

    RecommendationController(
            RecommendationService recommendation, LookService looks, OnRecord record, TakenAway taken) {
        this.taken = taken;
        this.looks = looks;
        this.record = record;
        this.recommendation = recommendation;
    }

    /** What the rule yields, with all that it rests on; hidden while raters grade. */
    @MayRefuse(ProblemType.STANDINGS_HIDDEN)
    @GetMapping("/api/studies/{studyId}/recommendation")
    RecommendationReport report(@PathVariable StudyId studyId) {
        return recommendation.report(studyId);
    }

    /**
     * What each candidate made of each prompt, a window of a hundred prompts.
     *
     * @param kindId      of the prompts that are looked at; absent for all
     * @param size        the same
     * @param area        the same, such as back end
     * @param by          what they are put in order by
     * @param candidateId whose score they are put in order by; with {@code CANDIDATE} alone
     * @param down        whether the highest come first
     * @param from        the first to show, from 0
     */
    @MayRefuse(ProblemType.STANDINGS_HIDDEN)
    @GetMapping("/api/studies/{studyId}/recommendation/prompts")
    PromptTableView prompts(
            @PathVariable StudyId studyId,
            @RequestParam(required = false) @Nullable KindId kindId,
            @RequestParam(required = false) PromptContent.@Nullable TaskSize size,
            @RequestParam(required = false) @Size(max = 80) @Nullable String area,
            @RequestParam(defaultValue = "LISTED") PromptTableView.By by,
            @RequestParam(required = false) @Nullable CandidateId candidateId,
            @RequestParam(defaultValue = "false") boolean down,
            @RequestParam(defaultValue = "0") @Min(0) int from) {
        return recommendation.prompts(
                studyId,
                new PromptTableView.Asked(new PromptTableView.Among(kindId, size, area), by, candidateId, down, from));
    }

    /** What the rule would say with other weights, another margin, or without some of what was graded; changes nothing. */
    @MayRefuse(ProblemType.STANDINGS_HIDDEN)
    @PostMapping("/api/studies/{studyId}/recommendation/what-if")
    WhatIf.WhatIfView whatIf(@PathVariable StudyId studyId, @Valid @RequestBody WhatIf.AskWhatIf request) {
        return recommendation.whatIf(studyId, request);
    }

    /** All grades as one long table (CSV), once grading has ended. */
    @MayRefuse(ProblemType.STANDINGS_HIDDEN)
    @GetMapping(path = "/api/studies/{studyId}/grades", produces = "text/csv")
    ResponseEntity<StreamingResponseBody> grades(@PathVariable StudyId studyId) {
        GradesTable.Rows rows = recommendation.grades(studyId);
        taken.of(studyId, AuditSort.STUDY_EXPORTED, "grades");
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"grades.csv\"")
                .contentType(new MediaType("text", "csv", StandardCharsets.UTF_8))
                .body(rows::write);
    }

    /** Looks that were taken, and how many the brief allows. */
    @GetMapping("/api/studies/{studyId}/looks")
    LookService.LooksView looks(@PathVariable StudyId studyId) {
        return looks.looks(studyId);
    }

    /** Takes a look at standings before grading has ended; the brief says how often that may be. */
    @MayRefuse(ProblemType.NOT_READY)
    @PostMapping("/api/studies/{studyId}/looks")
    @ResponseStatus(HttpStatus.CREATED)
    LookTaken take(@PathVariable StudyId studyId) {
        return record.of(studyId, () -> looks.take(studyId));
    }

    /** The recommendation as a look saw it. */
    @GetMapping("/api/studies/{studyId}/looks/{number}")
    RecommendationReport seen(@PathVariable StudyId studyId, @PathVariable int number) {
        return looks.seen(studyId, number);
    }

    /** What the outcome of a look hung on. */
    @GetMapping("/api/studies/{studyId}/looks/{number}/robustness")
    RobustnessReport hungOn(@PathVariable StudyId studyId, @PathVariable int number) {
        return looks.robustness(studyId, number);
    }

    /** What the outcome hangs on: without each prompt, rater, criterion and kind, and under other weights. */
    @MayRefuse(ProblemType.STANDINGS_HIDDEN)
    @GetMapping("/api/studies/{studyId}/recommendation/robustness")
    RobustnessReport robustness(@PathVariable StudyId studyId) {
        return recommendation.robustness(studyId);
    }
}
