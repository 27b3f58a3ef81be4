package org.mossbank.server.recommendation;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.grading.SentGrade;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.rubric.CriterionView;

/**
 * What raters gave one answer that counts.
 *
 * @param prompt title
 * @param kind   name
 * @param score  mean of 100, as the rule scores; absent without grades
 * @param levels by criterion, in the rubric's order; none for one that left nothing to grade
 */
public record AnswerGrades(
        String prompt,
        String kind,
        CandidateId candidateId,
        int attempt,
        @Nullable Double score,
        List<LevelsOn> levels) {
    /** What raters gave it on one criterion, in an order of raters that is the same everywhere. */
    public record LevelsOn(String criterion, List<Given> given) {}

    /** A level from 0. */
    public record Given(AccountId raterId, int level) {}

    /** By kind and prompt, then in the study's order of candidates. */
    static List<AnswerGrades> of(RecommendationData data) {
        Map<String, Double> scores =
                data.graded(data.rule().failedAnswers(), true).meansOfAnswers(data.weights());
        Map<AnswerId, Map<CriterionId, List<Given>>> given = new HashMap<>();
        for (SentGrade g : data.grades()) {
            given.computeIfAbsent(g.answerId(), a -> new HashMap<>())
                    .computeIfAbsent(g.criterionId(), c -> new ArrayList<>())
                    .add(new Given(g.raterId(), g.level()));
        }
        Map<CandidateId, Integer> places = new HashMap<>();
        data.candidates().forEach(c -> places.put(c.id(), places.size()));
        return data.answers().values().stream()
                .sorted(Comparator.comparing(
                                (AnswerFacts a) -> prompt(a, data).kind().name())
                        .thenComparing(a -> prompt(a, data).title())
                        .thenComparing(a -> prompt(a, data).key())
                        .thenComparing(a -> places.get(a.candidateId()))
                        .thenComparingInt(AnswerFacts::attempt))
                .map(a -> of(a, prompt(a, data), scores.get(a.key()), given.getOrDefault(a.id(), Map.of()), data))
                .toList();
    }

    private static PromptView prompt(AnswerFacts answer, RecommendationData data) {
        return Require.known(data.prompts(), answer.promptId());
    }

    private static AnswerGrades of(
            AnswerFacts answer,
            PromptView prompt,
            @Nullable Double score,
            Map<CriterionId, List<Given>> given,
            RecommendationData data) {
        return new AnswerGrades(
                prompt.title(),
                prompt.kind().name(),
                answer.candidateId(),
                answer.attempt(),
                score,
                data.criteria().stream()
                        .filter(c -> given.containsKey(c.id()))
                        .map(c -> levels(c, Require.known(given, c.id())))
                        .toList());
    }

    private static LevelsOn levels(CriterionView criterion, List<Given> given) {
        return new LevelsOn(
                criterion.name(),
                given.stream()
                        .sorted(Comparator.comparing(g -> g.raterId().toString()))
                        .toList());
    }
}
