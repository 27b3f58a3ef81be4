package org.mossbank.server.agreement;

import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.MayRefuse;
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

    /** Where raters part: by prompt, pair of raters and pair of levels. */
    @GetMapping("/api/studies/{studyId}/agreement/diagnosis")
    DiagnosisReport diagnosis(@PathVariable StudyId studyId) {
        return agreement.diagnosis(studyId);
    }
}
