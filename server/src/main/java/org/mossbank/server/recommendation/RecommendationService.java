package org.mossbank.server.recommendation;

import java.util.Optional;
import org.mossbank.core.decision.Outcome;
import org.mossbank.server.acts.OutcomeTeller;
import org.mossbank.server.figures.FiguresAhead;
import org.mossbank.server.figures.FiguresOf;
import org.mossbank.server.figures.KeptFigures;
import org.mossbank.server.figures.WorkedOutAhead;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.progress.Step;
import org.mossbank.server.progress.StepReport;
import org.mossbank.server.progress.StepState;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.study.RoundStage;
import org.mossbank.server.study.Studies;
import org.springframework.core.annotation.Order;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Component;
import org.springframework.stereotype.Service;

@Service
class RecommendationService {
    private final RecommendationReports reports;
    private final GradesTable grades;
    private final WhatIf whatIf;
    private final FiguresAhead ahead;
    private final Studies studies;

    RecommendationService(
            RecommendationReports reports, GradesTable grades, WhatIf whatIf, FiguresAhead ahead, Studies studies) {
        this.whatIf = whatIf;
        this.ahead = ahead;
        this.reports = reports;
        this.grades = grades;
        this.studies = studies;
    }

    private void refuseWhileGrading(StudyId study) {
        if (studies.stage(study) == RoundStage.Stage.GRADING) {
            throw Recommendations.hidden();
        }
    }

    /**
     * Whoever reads it may ask what would be otherwise next.
     *
     * @throws Problem 409 while raters grade
     */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public RecommendationReport report(StudyId study) {
        refuseWhileGrading(study);
        RecommendationReport report = reports.of(study);
        ahead.soon(study, whatIf::readAhead);
        return report;
    }

    /** All grades as one table, from which everybody can work the figures out again; for leads, as it names who gave them. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public GradesTable.Rows grades(StudyId study) {
        refuseWhileGrading(study);
        return grades.of(study);
    }

    /** What the outcome hangs on; asked for by itself, so that the outcome need not wait for it. */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public RobustnessReport robustness(StudyId study) {
        refuseWhileGrading(study);
        return reports.robustness(study);
    }

    /** What each candidate made of each prompt, a window of it. */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public PromptTableView prompts(StudyId study, PromptTableView.Asked asked) {
        refuseWhileGrading(study);
        return PromptTableView.of(reports.prompts(study), asked);
    }

    /** What the rule would say otherwise; changes nothing. */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public WhatIf.WhatIfView whatIf(StudyId study, WhatIf.AskWhatIf asked) {
        refuseWhileGrading(study);
        return whatIf.ask(study, asked);
    }

    /** Reports, cached by the revision of the grades. */
    @Component
    @Order(FiguresAhead.ON_THE_FIRST_PAGE)
    static class RecommendationReports implements OutcomeTeller, WorkedOutAhead {
        private static final FiguresOf<RecommendationReport> RECOMMENDATION =
                new FiguresOf<>("recommendation", RecommendationReport.class);
        private static final FiguresOf<RobustnessReport> ROBUSTNESS =
                new FiguresOf<>("robustness", RobustnessReport.class);
        private static final FiguresOf<PromptTable> PROMPTS = new FiguresOf<>("prompt-table", PromptTable.class);

        private final Grading grading;
        private final RecommendationComputation computation;
        private final RobustnessComputation robustness;
        private final PromptTableComputation prompts;
        private final KeptFigures kept;

        RecommendationReports(
                Grading grading,
                RecommendationComputation computation,
                RobustnessComputation robustness,
                PromptTableComputation prompts,
                KeptFigures kept) {
            this.prompts = prompts;
            this.robustness = robustness;
            this.grading = grading;
            this.computation = computation;
            this.kept = kept;
        }

        RecommendationReport of(StudyId study) {
            return begun(study).orElseGet(() -> computation.compute(study, 0));
        }

        RobustnessReport robustness(StudyId study) {
            return grading.round(study)
                    .map(r -> kept.of(ROBUSTNESS, study, r.revision(), () -> robustness.compute(study)))
                    .orElseGet(() -> robustness.compute(study));
        }

        PromptTable prompts(StudyId study) {
            return grading.round(study)
                    .map(r -> kept.of(PROMPTS, study, r.revision(), () -> prompts.of(study)))
                    .orElseGet(() -> prompts.of(study));
        }

        /** Not while raters grade: nobody may see them then, and each sheet makes them others. */
        @Override
        public void workOut(StudyId study) {
            grading.round(study).filter(Grading.RoundState::hasEnded).ifPresent(r -> of(study));
        }

        @Override
        public Optional<Told> outcome(StudyId study) {
            return begun(study).map(r -> new Told(r.outcome(), r.headline()));
        }

        /** The report of a study whose round was opened. */
        Optional<RecommendationReport> begun(StudyId study) {
            return grading.round(study).map(round -> at(study, round.revision()));
        }

        private RecommendationReport at(StudyId study, long revision) {
            return kept.of(RECOMMENDATION, study, revision, () -> computation.compute(study, revision));
        }
    }

    /** Opened from the first page, and short. */
    @Component
    @Order(FiguresAhead.ON_THE_FIRST_PAGE)
    static class PromptTableAhead implements WorkedOutAhead {
        private final RecommendationReports reports;
        private final Grading grading;

        PromptTableAhead(RecommendationReports reports, Grading grading) {
            this.reports = reports;
            this.grading = grading;
        }

        @Override
        public void workOut(StudyId study) {
            grading.round(study).filter(Grading.RoundState::hasEnded).ifPresent(r -> reports.prompts(study));
        }
    }

    /** What the outcome hangs on. */
    @Component
    @Order(FiguresAhead.BESIDE_IT)
    static class RobustnessAhead implements WorkedOutAhead {
        private final RecommendationReports reports;
        private final Grading grading;

        RobustnessAhead(RecommendationReports reports, Grading grading) {
            this.reports = reports;
            this.grading = grading;
        }

        @Override
        public void workOut(StudyId study) {
            grading.round(study).filter(Grading.RoundState::hasEnded).ifPresent(r -> reports.robustness(study));
        }
    }

    @Component
    static class RecommendationStep implements StepReport {
        private final RecommendationReports reports;
        private final Grading grading;

        RecommendationStep(RecommendationReports reports, Grading grading) {
            this.reports = reports;
            this.grading = grading;
        }

        @Override
        public Step step() {
            return Step.RECOMMENDATION;
        }

        @Override
        public StepState stateOf(StudyId study) {
            Optional<Grading.RoundState> round = grading.round(study);
            if (round.isEmpty()) {
                return new StepState(Step.RECOMMENDATION, 0, "not yet", "nothing is graded yet");
            }
            if (!round.get().hasEnded()) {
                return new StepState(Step.RECOMMENDATION, 0, "hidden until grading ends", null);
            }
            RecommendationReport report = reports.at(study, round.get().revision());
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
