package org.mossbank.server.succession;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.figures.FiguresOf;
import org.mossbank.server.figures.KeptFigures;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.recommendation.RecommendationReport;
import org.mossbank.server.recommendation.Recommendations;
import org.mossbank.server.recommendation.Recommendations.MeanLevel;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.Problem;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;

/** What changed since the study before, once grading has ended; kept by the revision of the grades. */
@Service
class SinceService {
    private static final FiguresOf<SinceReport> SINCE = new FiguresOf<>("since", SinceReport.class);

    private final Successions successions;
    private final Recommendations recommendations;
    private final Candidates candidates;
    private final Prompts prompts;
    private final Grading grading;
    private final KeptFigures kept;
    private final HeavyWork heavy;

    SinceService(
            Successions successions,
            Recommendations recommendations,
            Candidates candidates,
            Prompts prompts,
            Grading grading,
            KeptFigures kept,
            HeavyWork heavy) {
        this.successions = successions;
        this.recommendations = recommendations;
        this.candidates = candidates;
        this.prompts = prompts;
        this.grading = grading;
        this.kept = kept;
        this.heavy = heavy;
    }

    /**
     * The study before.
     *
     * @param title   of it; absent for a study that follows none
     * @param carried answers of it that are graded again
     */
    record FollowsView(@Nullable String title, int carried) {}

    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public FollowsView follows(StudyId study) {
        Optional<Before> before = successions.before(study);
        return new FollowsView(
                before.map(Before::title).orElse(null),
                before.map(b -> (int) b.grades().stream()
                                .map(Before.Given::answer)
                                .distinct()
                                .count())
                        .orElse(0));
    }

    /** @throws Problem 404 for a study that follows none; 409 before grading has ended */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public SinceReport since(StudyId study) {
        recommendations.requireEnded(study);
        Before before = successions.before(study).orElseThrow(() -> Problem.notFound("A study before this one"));
        long revision = grading.round(study).orElseThrow().revision();
        return kept.of(SINCE, study, revision, () -> {
            RecommendationReport report = recommendations.report(study);
            List<MeanLevel> levels = recommendations.meanLevels(study);
            List<CandidateView> all = candidates.ofStudy(study);
            List<PromptView> sound = prompts.sound(study);
            List<Before.Part> parts = new ArrayList<>();
            sound.forEach(p -> parts.add(new Before.Part(Before.Sort.PROMPT, p.key(), p.title(), null)));
            report.rule()
                    .weights()
                    .forEach(w -> parts.add(new Before.Part(Before.Sort.CRITERION, w.key(), w.name(), w.weight())));
            recommendations
                    .ratersOf(study)
                    .forEach(r -> parts.add(new Before.Part(Before.Sort.RATER, r.signInName(), r.displayName(), null)));
            return heavy.run(() -> SinceComputation.of(new SinceComputation.Basis(before, report, all, levels, parts)));
        });
    }
}
