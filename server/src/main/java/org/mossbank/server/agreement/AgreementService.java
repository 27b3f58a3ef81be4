package org.mossbank.server.agreement;

import java.util.Comparator;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.progress.Step;
import org.mossbank.server.progress.StepReport;
import org.mossbank.server.progress.StepState;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.study.StudyAccess;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Component;
import org.springframework.stereotype.Service;

@Service
class AgreementService {
    private final Agreements agreements;
    private final StudyAccess access;
    private final CurrentAccount current;
    private final CrossingComputation crossing;

    AgreementService(Agreements agreements, StudyAccess access, CurrentAccount current, CrossingComputation crossing) {
        this.crossing = crossing;
        this.agreements = agreements;
        this.access = access;
        this.current = current;
    }

    /** Of single raters, a rater is told their own figures alone. */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public AgreementReport report(StudyId study) {
        AgreementReport report = agreements.report(study);
        return access.mayLead(study) ? report : report.forRater(current.id());
    }

    /** Every coefficient of agreement, by criterion and kind. */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public CoefficientsReport coefficients(StudyId study) {
        return agreements.coefficients(study);
    }

    /**
     * What two raters gave the same answers.
     *
     * @throws Problem 404 if there is no such criterion
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public Crossing crossing(
            StudyId study, CriterionId criterion, AccountId first, AccountId second, Crossing.@Nullable Cell cell) {
        return crossing.of(study, criterion, first, second, cell);
    }

    /**
     * What parts raters, narrowed down. For the lead: it names raters.
     *
     * @throws Problem 404 if there is no such criterion
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public NarrowedReport narrowed(StudyId study, NarrowTo to) {
        return agreements.narrowed(study, to);
    }

    /** Where raters part; asked for by itself, so that the figures need not wait for it. For the lead: it names raters. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public DiagnosisReport diagnosis(StudyId study) {
        return agreements.diagnosis(study);
    }

    /** Says the lowest alpha of a criterion with weight, because that one decides. */
    @Component
    static class AgreementStep implements StepReport {
        private static final StepState NO_FIGURE =
                new StepState(Step.AGREEMENT, 0, "no figure yet", "no answer has grades from two raters");

        private final Agreements agreements;

        AgreementStep(Agreements agreements) {
            this.agreements = agreements;
        }

        @Override
        public Step step() {
            return Step.AGREEMENT;
        }

        @Override
        public StepState stateOf(StudyId study) {
            return agreements.begun(study).map(AgreementStep::state).orElse(NO_FIGURE);
        }

        private static StepState state(StudyAgreement agreement) {
            AgreementReport report = agreement.report();
            double done = report.sheets() == 0 ? 0 : (double) report.sentSheets() / report.sheets();
            return agreement.decisive().stream()
                    .filter(c -> c.weight() > 0 && c.aboveFloor().isPresent())
                    .min(Comparator.comparingDouble(c -> c.aboveFloor().orElseThrow()))
                    .map(c -> state(c, report.coefficient().sign(), done))
                    .orElse(NO_FIGURE);
        }

        private static StepState state(StudyAgreement.Decisive lowest, String sign, double done) {
            double above = lowest.aboveFloor().orElseThrow();
            String line =
                    String.format(Locale.ROOT, "%s %.2f, floor %.2f", sign, lowest.floor() + above, lowest.floor());
            return new StepState(
                    Step.AGREEMENT, done, line, above < 0 ? lowest.criterion() + " is below the floor" : null);
        }
    }
}
