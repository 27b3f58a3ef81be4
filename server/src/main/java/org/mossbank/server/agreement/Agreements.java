package org.mossbank.server.agreement;

import java.util.Optional;
import java.util.function.UnaryOperator;
import org.mossbank.core.agreement.Coefficient;
import org.mossbank.core.agreement.RatingMatrix;
import org.mossbank.server.figures.FiguresAhead;
import org.mossbank.server.figures.FiguresOf;
import org.mossbank.server.figures.KeptFigures;
import org.mossbank.server.figures.WorkedOutAhead;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Service;

/** Agreement, for other modules. Computed from a snapshot of grades, with no connection held, and kept by its revision. */
@Service
@Order(FiguresAhead.ON_THE_SECOND)
public class Agreements implements WorkedOutAhead {
    private static final FiguresOf<StudyAgreement> AGREEMENT = new FiguresOf<>("agreement", StudyAgreement.class);
    private static final FiguresOf<DiagnosisReport> DIAGNOSIS = new FiguresOf<>("diagnosis", DiagnosisReport.class);

    private static final FiguresOf<CoefficientsReport> COEFFICIENTS =
            new FiguresOf<>("coefficients", CoefficientsReport.class);

    private final Grading grading;
    private final AgreementComputation computation;
    private final DiagnosisComputation diagnosis;
    private final CoefficientsComputation coefficients;
    private final NarrowingComputation narrowing;
    private final KeptFigures kept;

    Agreements(
            Grading grading,
            AgreementComputation computation,
            DiagnosisComputation diagnosis,
            CoefficientsComputation coefficients,
            NarrowingComputation narrowing,
            KeptFigures kept) {
        this.narrowing = narrowing;
        this.coefficients = coefficients;
        this.grading = grading;
        this.computation = computation;
        this.diagnosis = diagnosis;
        this.kept = kept;
    }

    @SystemOnly
    public AgreementReport report(StudyId study) {
        return of(study).report();
    }

    @SystemOnly
    public StudyAgreement of(StudyId study) {
        // Before the round there is no revision to keep a report by, and little to compute.
        return begun(study).orElseGet(() -> computation.compute(study, 0));
    }

    /** Where raters part, by criterion. */
    @SystemOnly
    public DiagnosisReport diagnosis(StudyId study) {
        return revision(study)
                .map(r -> kept.of(DIAGNOSIS, study, r, () -> diagnosis.compute(study)))
                .orElseGet(() -> diagnosis.compute(study));
    }

    /** What parts raters, narrowed down. */
    @SystemOnly
    NarrowedReport narrowed(StudyId study, NarrowTo to) {
        return revision(study).map(r -> narrowing.of(study, r, to)).orElseGet(() -> narrowing.before(study, to));
    }

    /** Every coefficient; worked out when somebody asks. */
    @SystemOnly
    public CoefficientsReport coefficients(StudyId study) {
        return revision(study)
                .map(r -> kept.of(COEFFICIENTS, study, r, () -> coefficients.compute(study)))
                .orElseGet(() -> coefficients.compute(study));
    }

    /** The agreement in a study whose round was opened. */
    @SystemOnly
    Optional<StudyAgreement> begun(StudyId study) {
        return revision(study).map(r -> kept.of(AGREEMENT, study, r, () -> computation.compute(study, r)));
    }

    /** The coefficient that a rule looks at, of grades that are not yet a round's; its interval leaves out units one by one. */
    public static Figure decisive(RatingMatrix matrix, Coefficient rule) {
        return Coefficients.of(matrix, UnaryOperator.identity()).decisive(rule).figure();
    }

    @Override
    @SystemOnly
    public void workOut(StudyId study) {
        if (begun(study).isPresent()) {
            diagnosis(study);
            revision(study).ifPresent(r -> narrowing.ready(study, r));
        }
    }

    private Optional<Long> revision(StudyId study) {
        return grading.round(study).map(Grading.RoundState::revision);
    }
}
