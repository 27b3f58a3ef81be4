package org.mossbank.server;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.agreement.Coefficient;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.answer.Measures;
import org.mossbank.server.answer.Outcome;
import org.mossbank.server.candidate.CandidateContent;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.grading.SentGrade;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.KindView;
import org.mossbank.server.prompt.PromptContent;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.study.Brief;
import org.mossbank.server.study.RaterTerms;
import org.mossbank.server.study.RuleTerms;
import org.mossbank.server.study.StudyView;

/**
 * A study without a server: every candidate answers every prompt once, and what raters gave is said cell by cell. Candidates,
 * prompts, raters and criteria are called by their numbers, from 0.
 */
public final class PlainStudy {
    private static final Instant THEN = Instant.parse("2026-03-10T09:00:00Z");
    private static final int HIGHEST = 4;

    public final List<KindView> kinds = List.of(kind("explanation", "Explanation"), kind("review", "Review"));
    public final List<CandidateView> candidates = new ArrayList<>();
    public final List<PromptView> prompts = new ArrayList<>();
    public final List<CriterionView> criteria = new ArrayList<>();
    public final List<AccountView> raters = new ArrayList<>();
    public final List<AnswerFacts> answers = new ArrayList<>();
    public final List<SentGrade> grades = new ArrayList<>();

    /** Half of the prompts are of each kind; criteria weigh 2 and 1. */
    public PlainStudy(int candidateCount, int promptCount, int raterCount) {
        IntStream.range(0, raterCount)
                .forEach(i -> raters.add(new AccountView(
                        AccountId.from(uuid("rater", i)),
                        "rater" + i,
                        "Rater " + (char) ('A' + i),
                        false,
                        true,
                        true,
                        false,
                        true)));
        criteria.add(criterion("Correctness", 0, 2));
        criteria.add(criterion("Idiom", 1, 1));
        IntStream.range(0, candidateCount).forEach(i -> candidates.add(candidate(i, false, List.of())));
        for (int p = 0; p < promptCount; p++) {
            prompts.add(prompt(p));
            for (int c = 0; c < candidateCount; c++) {
                answers.add(answer(p, c, "An answer.", Measures.NONE));
            }
        }
    }

    private static String uuid(String of, int number) {
        return UUID.nameUUIDFromBytes((of + number).getBytes(java.nio.charset.StandardCharsets.UTF_8))
                .toString();
    }

    private static KindView kind(String key, String name) {
        return new KindView(KindId.from(uuid(key, 0)), key, name);
    }

    private static CriterionView criterion(String name, int number, double weight) {
        return new CriterionView(
                CriterionId.from(uuid("criterion", number)),
                name.toLowerCase(java.util.Locale.ROOT),
                name,
                "",
                weight,
                null,
                IntStream.rangeClosed(0, HIGHEST)
                        .mapToObj(l -> new CriterionView.LevelView(l, "Level " + l, List.of()))
                        .toList(),
                List.of(),
                List.of());
    }

    private static CandidateView candidate(int number, boolean baseline, List<String> ruledOutBy) {
        String name = List.of("Osier", "Teasel", "Sedge", "Marram").get(number);
        return new CandidateView(
                CandidateId.from(uuid("candidate", number)),
                name.toLowerCase(java.util.Locale.ROOT),
                new CandidateContent(
                        name,
                        "1",
                        List.of(),
                        null,
                        CandidateContent.Price.UNKNOWN,
                        null,
                        "",
                        ruledOutBy.stream()
                                .map(w -> new CandidateContent.Consideration(
                                        CandidateContent.Consideration.Sign.RULES_OUT, w, null))
                                .toList(),
                        baseline,
                        null),
                0);
    }

    private PromptView prompt(int number) {
        return new PromptView(
                PromptId.from(uuid("prompt", number)),
                "prompt" + number,
                kinds.get(number % kinds.size()),
                new PromptContent(
                        "Prompt " + number,
                        "",
                        "?",
                        List.of(),
                        null,
                        List.of(),
                        List.of(),
                        null,
                        List.of(),
                        "",
                        List.of()),
                null,
                null,
                null,
                null,
                null,
                null,
                0);
    }

    private AnswerFacts answer(int prompt, int candidate, String text, Measures measures) {
        String key = "prompt" + prompt + "-" + candidates.get(candidate).key();
        return new AnswerFacts(
                AnswerId.from(uuid(key, 0)),
                key,
                PromptId.from(uuid("prompt", prompt)),
                candidates.get(candidate).id(),
                1,
                text.isEmpty() ? Outcome.REFUSED : Outcome.COMPLETE,
                measures,
                List.of(),
                text.length(),
                text.isEmpty());
    }

    public PlainStudy baseline(int candidate) {
        candidates.set(candidate, candidate(candidate, true, List.of()));
        return this;
    }

    public PlainStudy ruledOut(int candidate, String why) {
        candidates.set(candidate, candidate(candidate, false, List.of(why)));
        return this;
    }

    /** An answer that left nothing to grade. */
    public PlainStudy refused(int prompt, int candidate) {
        answers.set(prompt * candidates.size() + candidate, answer(prompt, candidate, "", Measures.NONE));
        return this;
    }

    public PlainStudy took(int prompt, int candidate, @Nullable Long ms, @Nullable String cost) {
        Measures measures = new Measures(
                null,
                ms,
                null,
                null,
                cost == null ? null : new BigDecimal(cost),
                cost == null ? null : "EUR",
                false,
                null,
                null);
        answers.set(prompt * candidates.size() + candidate, answer(prompt, candidate, "An answer.", measures));
        return this;
    }

    public AnswerFacts answer(int prompt, int candidate) {
        return answers.get(prompt * candidates.size() + candidate);
    }

    public PlainStudy grade(int rater, int prompt, int candidate, int criterion, int level) {
        grades.add(new SentGrade(
                raters.get(rater).id(),
                answer(prompt, candidate).id(),
                criteria.get(criterion).id(),
                level));
        return this;
    }

    /** One criterion's levels, by prompt, candidate and rater. */
    @FunctionalInterface
    public interface Levels {
        int of(int prompt, int candidate, int rater);
    }

    /** All raters grade all answers. */
    public PlainStudy graded(int criterion, Levels levels) {
        for (int p = 0; p < prompts.size(); p++) {
            for (int c = 0; c < candidates.size(); c++) {
                for (int r = 0; r < raters.size(); r++) {
                    grade(r, p, c, criterion, levels.of(p, c, r));
                }
            }
        }
        return this;
    }

    public PlainStudy weights(double first, double second) {
        criteria.set(0, criterion("Correctness", 0, first));
        criteria.set(1, criterion("Idiom", 1, second));
        return this;
    }

    /** With a floor of its own. */
    public PlainStudy floor(int criterion, double floor) {
        CriterionView c = criteria.get(criterion);
        criteria.set(
                criterion,
                new CriterionView(
                        c.id(),
                        c.key(),
                        c.name(),
                        c.question(),
                        c.weight(),
                        floor,
                        c.levels(),
                        c.kindIds(),
                        c.traits()));
        return this;
    }

    public static RuleTerms rule(double floor, double margin, int raters, DecisionRule.TieBreak tieBreak) {
        return new RuleTerms(
                Coefficient.ALPHA_ORDINAL,
                floor,
                DecisionRule.FloorOn.ESTIMATE,
                margin,
                raters,
                tieBreak,
                false,
                false,
                false,
                1,
                RuleTerms.FailedAnswers.LOWEST,
                null);
    }

    public StudyView study(RuleTerms rule) {
        return new StudyView(
                StudyId.from(uuid("study", 0)),
                "A study",
                new Brief("?", "us", "", rule, false, RaterTerms.USUAL),
                THEN,
                null,
                7,
                THEN);
    }

    public Map<AccountId, AccountView> ratersById() {
        return by(raters, AccountView::id);
    }

    public Map<PromptId, PromptView> promptsById() {
        return by(prompts, PromptView::id);
    }

    public Map<AnswerId, AnswerFacts> answersById() {
        return by(answers, AnswerFacts::id);
    }

    public Map<AnswerId, Long> ratersByAnswer() {
        Map<AnswerId, Long> counts = new HashMap<>();
        grades.stream()
                .collect(Collectors.groupingBy(
                        SentGrade::answerId, Collectors.mapping(SentGrade::raterId, Collectors.toSet())))
                .forEach((answer, who) -> counts.put(answer, (long) who.size()));
        return counts;
    }

    private static <K, V> Map<K, V> by(List<V> all, Function<V, K> key) {
        return all.stream().collect(Collectors.toMap(key, Function.identity()));
    }
}
