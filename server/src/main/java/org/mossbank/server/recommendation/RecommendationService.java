package org.mossbank.server.recommendation;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.Optional;
import org.mossbank.core.decision.Outcome;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.progress.Step;
import org.mossbank.server.progress.StepReport;
import org.mossbank.server.progress.StepState;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Component;
import org.springframework.stereotype.Service;

@Service
class RecommendationService {
    private final RecommendationReports reports;

    RecommendationService(RecommendationReports reports) {
        this.reports = reports;
    }

    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public RecommendationReport report(StudyId study) {
        return reports.of(study);
    }

    /** What the outcome hangs on; asked for by itself, so that the outcome need not wait for it. */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public RobustnessReport robustness(StudyId study) {
        return reports.robustness(study);
    }

    /** Reports, cached by the revision of the grades. */
    @Component
    static class RecommendationReports {
        private static final int CACHED_REPORTS = 200;

        private record Key(StudyId study, long revision) {}

        private final Grading grading;
        private final RecommendationComputation computation;
        private final RobustnessComputation robustness;
        private final Cache<Key, RecommendationReport> cache =
                Caffeine.newBuilder().maximumSize(CACHED_REPORTS).build();
        private final Cache<Key, RobustnessReport> robustnessCache =
                Caffeine.newBuilder().maximumSize(CACHED_REPORTS).build();

        RecommendationReports(
                Grading grading, RecommendationComputation computation, RobustnessComputation robustness) {
            this.robustness = robustness;
            this.grading = grading;
            this.computation = computation;
        }

        RecommendationReport of(StudyId study) {
            return begun(study).orElseGet(() -> computation.compute(study, 0));
        }

        RobustnessReport robustness(StudyId study) {
            long revision =
                    grading.round(study).map(Grading.RoundState::revision).orElse(0L);
            return robustnessCache.get(new Key(study, revision), k -> robustness.compute(study));
        }

        /** The report of a study whose round was opened. */
        Optional<RecommendationReport> begun(StudyId study) {
            return grading.round(study)
                    .map(round ->
                            cache.get(new Key(study, round.revision()), k -> computation.compute(study, k.revision())));
        }
    }

    @Component
    static class RecommendationStep implements StepReport {
        private final RecommendationReports reports;

        RecommendationStep(RecommendationReports reports) {
            this.reports = reports;
        }

        @Override
        public Step step() {
            return Step.RECOMMENDATION;
        }

        @Override
        public StepState stateOf(StudyId study) {
            RecommendationReport report = reports.begun(study).orElse(null);
            if (report == null) {
                return new StepState(Step.RECOMMENDATION, 0, "not yet", "nothing is graded yet");
            }
            boolean withheld = report.outcome() == Outcome.WITHHELD;
            return new StepState(
                    Step.RECOMMENDATION,
                    withheld ? 0 : 1,
                    switch (report.outcome()) {
                        case WITHHELD -> "withheld";
                        case RECOMMENDED -> "one recommended";
                        case SAFE_CHOICES -> "safe choices";
                        case BY_KIND -> "by kind";
                        case UNDECIDED -> "undecided";
                    },
                    withheld ? report.findings().get(0).sentence() : null);
        }
    }
}
