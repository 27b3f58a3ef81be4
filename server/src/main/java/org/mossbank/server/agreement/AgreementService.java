package org.mossbank.server.agreement;

import java.util.Comparator;
import java.util.Locale;
import java.util.Optional;
import java.util.UUID;
import org.mossbank.server.study.Step;
import org.mossbank.server.study.StepReport;
import org.mossbank.server.study.StepState;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Component;
import org.springframework.stereotype.Service;

@Service
class AgreementService {
    private final Agreements agreements;

    AgreementService(Agreements agreements) {
        this.agreements = agreements;
    }

    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public AgreementReport report(UUID study) {
        return agreements.report(study);
    }

    /** Says the lowest alpha of a criterion with weight, because that one decides. */
    @Component
    static class AgreementStep implements StepReport {
        private final Agreements agreements;

        AgreementStep(Agreements agreements) {
            this.agreements = agreements;
        }

        @Override
        public Step step() {
            return Step.AGREEMENT;
        }

        @Override
        public StepState stateOf(UUID study) {
            AgreementReport report = agreements.report(study);
            double done = report.sheets() == 0 ? 0 : (double) report.sentSheets() / report.sheets();
            return report.criteria().stream()
                    .filter(c -> c.weight() > 0 && aboveFloor(c, report).isPresent())
                    .min(Comparator.comparingDouble(c -> aboveFloor(c, report).orElseThrow()))
                    .map(c -> state(c, report, done))
                    .orElse(new StepState(Step.AGREEMENT, 0, "no figure yet", "no answer has grades from two raters"));
        }

        /** How far the coefficient of the rule lies above the floor. */
        private static Optional<Double> aboveFloor(
                AgreementReport.CriterionAgreement criterion, AgreementReport report) {
            return Optional.ofNullable(
                            criterion.overall().decisive(report.coefficient()).value())
                    .map(value -> value - criterion.floor());
        }

        private static StepState state(AgreementReport.CriterionAgreement lowest, AgreementReport report, double done) {
            double above = aboveFloor(lowest, report).orElseThrow();
            String line = String.format(
                    Locale.ROOT,
                    "%s %.2f, floor %.2f",
                    report.coefficient().sign(),
                    lowest.floor() + above,
                    lowest.floor());
            return new StepState(Step.AGREEMENT, done, line, above < 0 ? lowest.name() + " is below the floor" : null);
        }
    }
}
