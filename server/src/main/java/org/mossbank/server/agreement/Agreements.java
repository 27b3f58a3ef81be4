package org.mossbank.server.agreement;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.Optional;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;

/** Agreement, for other modules. Computed from a snapshot of grades, with no connection held, and cached by its revision. */
@Service
public class Agreements {
    private static final int CACHED_REPORTS = 200;

    private record Key(StudyId study, long revision) {}

    private final Grading grading;
    private final AgreementComputation computation;
    private final Cache<Key, StudyAgreement> byRevision =
            Caffeine.newBuilder().maximumSize(CACHED_REPORTS).build();

    private final DiagnosisComputation diagnosis;
    private final Cache<Key, DiagnosisReport> diagnoses =
            Caffeine.newBuilder().maximumSize(CACHED_REPORTS).build();

    Agreements(Grading grading, AgreementComputation computation, DiagnosisComputation diagnosis) {
        this.diagnosis = diagnosis;
        this.grading = grading;
        this.computation = computation;
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

    @SystemOnly
    DiagnosisReport diagnosis(StudyId study) {
        long revision = grading.round(study).map(Grading.RoundState::revision).orElse(0L);
        return diagnoses.get(new Key(study, revision), k -> diagnosis.compute(study));
    }

    /** The agreement in a study whose round was opened. */
    @SystemOnly
    Optional<StudyAgreement> begun(StudyId study) {
        return grading.round(study)
                .map(round -> byRevision.get(
                        new Key(study, round.revision()), k -> computation.compute(study, k.revision())));
    }
}
