package org.mossbank.server.recommendation;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mossbank.core.comparison.ScoreGrid;
import org.mossbank.core.comparison.ScoredCell;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.robustness.GradedAnswers;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.SentGrade;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;

/** What was recommended once grading has ended, for other modules. Nothing here holds a transaction. */
@Service
public class Recommendations {
    private final RecommendationService.RecommendationReports reports;
    private final RecommendationBasis basis;
    private final Grading grading;
    private final HeavyWork heavy;

    Recommendations(
            RecommendationService.RecommendationReports reports,
            RecommendationBasis basis,
            Grading grading,
            HeavyWork heavy) {
        this.reports = reports;
        this.basis = basis;
        this.grading = grading;
        this.heavy = heavy;
    }

    /** @throws Problem 409 before grading has ended */
    @SystemOnly
    public void requireEnded(StudyId study) {
        Grading.RoundState round =
                grading.round(study).orElseThrow(() -> new Problem(ProblemType.NOT_READY, "Nothing is graded yet."));
        if (!round.hasEnded()) {
            throw hidden();
        }
    }

    static Problem hidden() {
        return new Problem(
                ProblemType.STANDINGS_HIDDEN,
                "How candidates stand is hidden until grading ends, so that nobody stops when they like what they see.");
    }

    /** @throws Problem 409 before grading has ended */
    @SystemOnly
    public RecommendationReport report(StudyId study) {
        requireEnded(study);
        return reports.of(study);
    }

    /** What that outcome hangs on. */
    @SystemOnly
    public RobustnessReport robustness(StudyId study) {
        return reports.robustness(study);
    }

    /** The mean score of 100 of every answer that has one, as the rule scores, without adjustment. */
    @SystemOnly
    public Map<AnswerId, Double> meanScores(StudyId study) {
        RecommendationData data = basis.of(study);
        return heavy.run(() -> {
            Map<String, Double> means =
                    data.graded(data.rule().failedAnswers(), true).meansOfAnswers(data.weights());
            Map<AnswerId, Double> byAnswer = new HashMap<>();
            data.answers().values().forEach(a -> {
                Double mean = means.get(a.key());
                if (mean != null) {
                    byAnswer.put(a.id(), mean);
                }
            });
            return byAnswer;
        });
    }

    /** What raters gave every answer that counts on each criterion, by keys. */
    @SystemOnly
    public List<MeanLevel> meanLevels(StudyId study) {
        RecommendationData data = basis.of(study);
        return heavy.run(() -> MeanLevel.of(data));
    }

    /** What each rater's grades give each answer, as the rule scores, by candidates' keys and raters' names to sign in. */
    @SystemOnly
    public List<ScoredCell> scores(StudyId study) {
        RecommendationData data = basis.of(study);
        return heavy.run(() -> data.graded(data.rule().failedAnswers(), true).cells(data.weights()));
    }

    /**
     * All grades that count, as the rule scores.
     *
     * @param weights of the criteria, in their order
     */
    public record Graded(GradedAnswers answers, List<Double> weights) {
        /** Those to some prompts, by their keys; empty if nothing with weight was graded. */
        public Optional<ScoreGrid> grid(Collection<String> prompts) {
            return answers.ofPrompts(prompts)
                    .grid(weights.stream().mapToDouble(Double::doubleValue).toArray());
        }
    }

    /** All grades that count. */
    @SystemOnly
    public Graded graded(StudyId study) {
        RecommendationData data = basis.of(study);
        return heavy.run(() -> new Graded(
                data.graded(data.rule().failedAnswers(), true),
                Arrays.stream(data.weights()).boxed().toList()));
    }

    /** Who gave the grades that count. */
    @SystemOnly
    public List<AccountView> ratersOf(StudyId study) {
        return basis.of(study).raters().values().stream()
                .sorted(Comparator.comparing(AccountView::signInName))
                .toList();
    }

    /** What raters gave every answer that counts. */
    @SystemOnly
    public List<AnswerGrades> grades(StudyId study) {
        RecommendationData data = basis.of(study);
        return heavy.run(() -> AnswerGrades.of(data));
    }

    /**
     * What raters gave an answer on a criterion, by keys.
     *
     * @param level mean over raters, from 0
     */
    public record MeanLevel(
            String answer, String prompt, String criterion, double level, int highestLevel, int raters) {
        /** Of all that count, in the order of answers' keys. */
        static List<MeanLevel> of(RecommendationData data) {
            Map<AnswerId, Map<CriterionId, List<Integer>>> given = new HashMap<>();
            for (SentGrade g : data.grades()) {
                given.computeIfAbsent(g.answerId(), a -> new HashMap<>())
                        .computeIfAbsent(g.criterionId(), c -> new ArrayList<>())
                        .add(g.level());
            }
            List<MeanLevel> all = new ArrayList<>();
            data.answers().values().stream()
                    .filter(a -> given.containsKey(a.id()))
                    .sorted(Comparator.comparing(AnswerFacts::key))
                    .forEach(a -> data.criteria().stream()
                            .filter(c -> Require.known(given, a.id()).containsKey(c.id()))
                            .forEach(c ->
                                    all.add(of(a, c, Require.known(Require.known(given, a.id()), c.id()), data))));
            return all;
        }

        private static MeanLevel of(
                AnswerFacts answer, CriterionView criterion, List<Integer> levels, RecommendationData data) {
            return new MeanLevel(
                    answer.key(),
                    Require.known(data.prompts(), answer.promptId()).key(),
                    criterion.key(),
                    levels.stream().mapToInt(Integer::intValue).average().orElseThrow(),
                    criterion.highestLevel(),
                    levels.size());
        }
    }
}
