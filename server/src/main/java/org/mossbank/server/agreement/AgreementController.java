package org.mossbank.server.agreement;

import org.jspecify.annotations.Nullable;
import org.mossbank.core.diagnosis.Narrowing;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

@RestController
class AgreementController {
    private final AgreementService agreement;

    AgreementController(AgreementService agreement) {
        this.agreement = agreement;
    }

    /** How alike raters grade, from the sheets sent in. */
    @GetMapping("/api/studies/{studyId}/agreement")
    AgreementReport report(@PathVariable StudyId studyId) {
        return agreement.report(studyId);
    }

    /** Every coefficient of agreement, by criterion over all kinds and within each. */
    @GetMapping("/api/studies/{studyId}/agreement/coefficients")
    CoefficientsReport coefficients(@PathVariable StudyId studyId) {
        return agreement.coefficients(studyId);
    }

    /**
     * How often two raters gave the same answers which levels, and the answers of one cell.
     *
     * @param firstLevel  of the cell; both or none
     * @param secondLevel of the cell
     */
    @MayRefuse(ProblemType.INVALID_REQUEST)
    @GetMapping("/api/studies/{studyId}/agreement/crossing")
    Crossing crossing(
            @PathVariable StudyId studyId,
            @RequestParam CriterionId criterionId,
            @RequestParam AccountId firstId,
            @RequestParam AccountId secondId,
            @RequestParam(required = false) @Nullable Integer firstLevel,
            @RequestParam(required = false) @Nullable Integer secondLevel) {
        return agreement.crossing(
                studyId,
                criterionId,
                firstId,
                secondId,
                firstLevel == null || secondLevel == null ? null : new Crossing.Cell(firstLevel, secondLevel));
    }

    /**
     * What parts raters on one criterion, narrowed down by what is chosen: by kind, prompt, pair of levels and pair of raters, and
     * the answers that it is about.
     *
     * @param promptId with its other wordings
     * @param raterId  pairs of grades of which one is theirs
     * @param lower    of two levels; both or none, and below the other
     * @param higher   of two levels
     */
    @MayRefuse(ProblemType.INVALID_REQUEST)
    @GetMapping("/api/studies/{studyId}/agreement/narrowed")
    NarrowedReport narrowed(
            @PathVariable StudyId studyId,
            @RequestParam CriterionId criterionId,
            @RequestParam(required = false) @Nullable KindId kindId,
            @RequestParam(required = false) @Nullable PromptId promptId,
            @RequestParam(required = false) @Nullable AccountId raterId,
            @RequestParam(required = false) @Nullable Integer lower,
            @RequestParam(required = false) @Nullable Integer higher) {
        return agreement.narrowed(studyId, new NarrowTo(criterionId, kindId, promptId, raterId, levels(lower, higher)));
    }

    private static Narrowing.@Nullable Levels levels(@Nullable Integer lower, @Nullable Integer higher) {
        if (lower == null && higher == null) {
            return null;
        }
        if (lower == null || higher == null || lower < 0 || lower >= higher) {
            throw Problem.invalid("lower", "two levels must be given, the lower one first");
        }
        return new Narrowing.Levels(lower, higher);
    }

    /** Where raters part: by prompt, pair of raters and pair of levels. */
    @GetMapping("/api/studies/{studyId}/agreement/diagnosis")
    DiagnosisReport diagnosis(@PathVariable StudyId studyId) {
        return agreement.diagnosis(studyId);
    }
}
