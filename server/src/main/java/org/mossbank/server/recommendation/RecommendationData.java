package org.mossbank.server.recommendation;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.mossbank.core.comparison.PromptGroups;
import org.mossbank.core.comparison.ScoredCell;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.estimate.Resamples;
import org.mossbank.core.rubric.CriterionGrade;
import org.mossbank.core.rubric.OverallScore;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.grading.SentGrade;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.study.Reopening;
import org.mossbank.server.study.RuleTerms;
import org.mossbank.server.study.StudyView;

/** All that the figures are computed from. */
record RecommendationData(
        StudyView study,
        List<CandidateView> candidates,
        List<CriterionView> criteria,
        Map<PromptId, PromptView> prompts,
        Map<AnswerId, AnswerView> answers,
        Map<AccountId, AccountView> raters,
        List<SentGrade> grades,
        Map<AnswerId, Long> ratersByAnswer,
        List<Reopening> reopenings,
        List<RecommendationReport.ExpectationView> expectations,
        boolean leadWasBlind) {

    CandidateId candidateId(String key) {
        return candidates.stream()
                .filter(c -> c.key().equals(key))
                .map(CandidateView::id)
                .findFirst()
                .orElseThrow();
    }

    private String candidateKey(CandidateId id) {
        return candidates.stream()
                .filter(c -> c.id().equals(id))
                .map(CandidateView::key)
                .findFirst()
                .orElseThrow();
    }

    /**
     * One cell for each candidate, prompt and rater: the mean over attempts of what {@code score} makes of them. Named
     * by keys that an archive keeps, so that a study loaded again gives the same intervals.
     */
    List<ScoredCell> cells(Function<List<SentGrade>, OptionalDouble> score) {
        record Place(String candidate, String prompt, String rater) {}
        Map<Place, Map<AnswerId, List<SentGrade>>> byPlace = new HashMap<>();
        for (SentGrade grade : grades) {
            AnswerView answer = Require.known(answers, grade.answerId());
            Place place = new Place(
                    candidateKey(answer.candidateId()),
                    Require.known(prompts, answer.promptId()).key(),
                    Require.known(raters, grade.raterId()).signInName());
            byPlace.computeIfAbsent(place, p -> new HashMap<>())
                    .computeIfAbsent(grade.answerId(), a -> new ArrayList<>())
                    .add(grade);
        }
        List<ScoredCell> cells = new ArrayList<>();
        byPlace.forEach((place, attempts) -> attempts.values().stream()
                .map(score)
                .filter(OptionalDouble::isPresent)
                .mapToDouble(OptionalDouble::getAsDouble)
                .average()
                .ifPresent(mean -> cells.add(new ScoredCell(place.candidate(), place.prompt(), place.rater(), mean))));
        return cells;
    }

    Standings standings(List<ScoredCell> cells) {
        Map<String, String> kinds = prompts.values().stream()
                .collect(Collectors.toMap(PromptView::key, p -> p.kind().key()));
        Map<String, String> families = prompts.values().stream()
                .collect(Collectors.toMap(
                        PromptView::key,
                        p -> prompts.getOrDefault(p.family(), p).key()));
        return Standings.of(
                cells,
                new PromptGroups(kinds::get, families::get),
                Standings.Options.USUAL,
                Resamples.generator(study.seed()));
    }

    OptionalDouble overall(List<SentGrade> given) {
        return score(given, criteria);
    }

    /** The score from the grades on some criteria. */
    OptionalDouble score(List<SentGrade> given, List<CriterionView> some) {
        return OverallScore.of(some.stream()
                .flatMap(c -> given.stream()
                        .filter(g -> g.criterionId().equals(c.id()))
                        .map(g -> RuleTerms.GateTerms.apply(
                                study.brief().rule().gate(),
                                c.key(),
                                CriterionGrade.of(c.weight(), g.level(), c.highestLevel()))))
                .toList());
    }
}
