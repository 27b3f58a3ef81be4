package org.mossbank.server.recommendation;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.Collectors;
import org.mossbank.core.comparison.PromptGroups;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.robustness.GradedAnswers;
import org.mossbank.core.rubric.CriterionGrade;
import org.mossbank.core.rubric.OverallScore;
import org.mossbank.core.tradeoff.CostOfPrompts;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.grading.SentGrade;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.prompt.KindView;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.reconciliation.Reconciliations;
import org.mossbank.server.reconciliation.Splits;
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
        Map<AnswerId, AnswerFacts> answers,
        Map<AccountId, AccountView> raters,
        List<SentGrade> grades,
        Map<AnswerId, Long> ratersByAnswer,
        List<Reopening> reopenings,
        List<RecommendationReport.ExpectationView> expectations,
        Looking looking,
        RoundSeen round) {

    /**
     * @param taken   looks before this one, oldest first
     * @param planned prompts of the study, whether they count yet or not
     */
    record Looking(List<LookTaken> taken, int planned) {}

    /**
     * @param leadWasBlind whether the lead graded too
     * @param sentKnowing  sheets that were sent in after names had been open to raters
     * @param withdrawn    sheets that count nowhere
     * @param settled      what raters settled on where they were split
     */
    record RoundSeen(boolean leadWasBlind, int sentKnowing, int withdrawn, List<Reconciliations.Settled> settled) {}

    /** Whether a split counts by the grades that were given independently, or by the one it was settled at. */
    enum Splitting {
        ORIGINAL,
        SETTLED
    }

    /** The level that each settled split was settled at. */
    Map<Splits.Place, Double> settledLevels() {
        return round.settled.stream()
                .collect(Collectors.toMap(
                        s -> new Splits.Place(s.answerId(), s.criterionId()), Reconciliations.Settled::level));
    }

    /** Splits among what counts that have no settled grade. */
    int unsettledSplits() {
        return Splits.unsettled(grades, round.settled);
    }

    /** Prompts that count, each of their answers having as many raters as the rule asks for, of those there are. */
    record Information(int counted, int planned) {
        double share() {
            return planned == 0 ? 0 : (double) counted / planned;
        }
    }

    Information information() {
        return new Information(counting().size(), looking.planned);
    }

    private Set<PromptId> counting() {
        Map<PromptId, Boolean> each = new HashMap<>();
        for (AnswerFacts answer : answers.values()) {
            if (!answer.isWithoutText()) {
                boolean enough = ratersByAnswer.getOrDefault(answer.id(), 0L) >= rule().minimumRaters();
                each.merge(answer.promptId(), enough, Boolean::logicalAnd);
            }
        }
        each.values().removeIf(counts -> !counts);
        return each.keySet();
    }

    /** With the prompts alone that count: so a look is not swayed by which sheets came first. */
    RecommendationData counted() {
        Map<PromptId, PromptView> counting = new HashMap<>(prompts);
        counting.keySet().retainAll(counting());
        Map<AnswerId, AnswerFacts> of = new HashMap<>(answers);
        of.values().removeIf(a -> !counting.containsKey(a.promptId()));
        return new RecommendationData(
                study,
                candidates,
                criteria,
                counting,
                of,
                raters,
                grades.stream().filter(g -> of.containsKey(g.answerId())).toList(),
                ratersByAnswer,
                reopenings,
                expectations,
                looking,
                round);
    }

    /** The brief's rule, with what is left of its allowance where there is more than one look. */
    DecisionRule decisionRule() {
        DecisionRule own = rule().decisionRule();
        List<Double> shares = new ArrayList<>(
                looking.taken.stream().map(LookTaken::information).toList());
        double now = information().share();
        if (now > (shares.isEmpty() ? 0 : shares.get(shares.size() - 1))) {
            shares.add(now);
        }
        boolean onlyLook = rule().looks() == 1 && looking.taken.isEmpty();
        return onlyLook || shares.isEmpty()
                ? own
                : own.withAllowance(own.allowance().at(shares));
    }

    CandidateId candidateId(String key) {
        return candidates.stream()
                .filter(c -> c.key().equals(key))
                .map(CandidateView::id)
                .findFirst()
                .orElseThrow();
    }

    /** The name of a kind by its key. */
    String kindName(String key) {
        return prompts.values().stream()
                .map(PromptView::kind)
                .filter(k -> k.key().equals(key))
                .map(KindView::name)
                .findFirst()
                .orElse(key);
    }

    RuleTerms rule() {
        return study.brief().rule();
    }

    double[] weights() {
        return criteria.stream().mapToDouble(CriterionView::weight).toArray();
    }

    /** All the weight on one criterion, so that one without weight has its own standings too. */
    double[] onlyOn(CriterionView criterion) {
        return criteria.stream()
                .mapToDouble(c -> c.id().equals(criterion.id()) ? 1 : 0)
                .toArray();
    }

    /** Answers that left nothing to grade: they get their levels by the rule. */
    List<AnswerFacts> withoutText() {
        return answers.values().stream().filter(AnswerFacts::isWithoutText).toList();
    }

    /** Which prompts are of one kind, and which are wordings of one; by keys. */
    PromptGroups groups() {
        Map<String, String> kinds = prompts.values().stream()
                .collect(Collectors.toMap(PromptView::key, p -> p.kind().key()));
        Map<String, String> families = prompts.values().stream()
                .collect(Collectors.toMap(
                        PromptView::key,
                        p -> prompts.getOrDefault(p.family(), p).key()));
        return new PromptGroups(kinds::get, families::get);
    }

    /**
     * The grades by keys that an archive keeps, so that a study loaded again gives the same figures.
     *
     * @param failed what answers without text count for
     * @param gated  whether the rule's gate caps scores
     */
    GradedAnswers graded(RuleTerms.FailedAnswers failed, boolean gated) {
        return graded(failed, gated, Splitting.ORIGINAL);
    }

    /** The same with settled grades in the place of the grades that were split. */
    GradedAnswers graded(RuleTerms.FailedAnswers failed, boolean gated, Splitting splitting) {
        Grades all = new Grades(gated);
        Map<Splits.Place, Double> settled = splitting == Splitting.SETTLED ? settledLevels() : Map.of();
        Map<PromptId, Set<AccountId>> sent = new HashMap<>();
        AnswerFacts answer = null;
        for (SentGrade grade : grades) {
            // Those of an answer stand together.
            if (answer == null || !answer.id().equals(grade.answerId())) {
                answer = Require.known(answers, grade.answerId());
            }
            if (failed == RuleTerms.FailedAnswers.LOWEST) {
                sent.computeIfAbsent(answer.promptId(), p -> new HashSet<>()).add(grade.raterId());
            }
            if (!answer.isWithoutText()) {
                Double level =
                        settled.isEmpty() ? null : settled.get(new Splits.Place(grade.answerId(), grade.criterionId()));
                all.add(answer, grade.raterId(), grade.criterionId(), level == null ? grade.level() : level);
            }
        }
        if (failed == RuleTerms.FailedAnswers.LOWEST) {
            withoutText()
                    .forEach(a -> sent.getOrDefault(a.promptId(), Set.of())
                            .forEach(r -> criteria.stream()
                                    .filter(c -> c.appliesTo(Require.known(prompts, a.promptId())
                                            .kind()
                                            .id()))
                                    .forEach(c -> all.add(a, r, c.id(), 0))));
        }
        return all.gathered.snapshot(groups());
    }

    /** Gathers grades under the names that the core knows them by. */
    private final class Grades {
        private final GradedAnswers.Accumulator gathered = new GradedAnswers.Accumulator(
                criteria.stream().map(CriterionView::name).toList());
        private final Map<CandidateId, String> keys =
                candidates.stream().collect(Collectors.toMap(CandidateView::id, CandidateView::key));
        private final Map<CriterionId, Integer> places = new HashMap<>();
        private final boolean gated;
        /** Scores are shares of the scale, so that counting all levels in halves changes none. */
        private static final int HALVES = 2;

        Grades(boolean gated) {
            this.gated = gated;
            criteria.forEach(c -> places.put(c.id(), places.size()));
        }

        /** @param level in levels; a settled one may lie between two */
        void add(AnswerFacts answer, AccountId rater, CriterionId id, double level) {
            int place = Require.known(places, id);
            CriterionView criterion = criteria.get(place);
            gathered.add(
                    Require.known(keys, answer.candidateId()),
                    Require.known(prompts, answer.promptId()).key(),
                    Require.known(raters, rater).signInName(),
                    answer.key(),
                    place,
                    (int) Math.round(HALVES * level),
                    HALVES * criterion.highestLevel(),
                    cap(criterion, level));
        }

        private double cap(CriterionView criterion, double level) {
            RuleTerms.GateTerms gate = gated ? rule().gate() : null;
            return gate == null
                    ? OverallScore.HIGHEST
                    : RuleTerms.GateTerms.apply(
                                    gate,
                                    criterion.key(),
                                    CriterionGrade.of(
                                            criterion.weight(), (int) Math.ceil(level), criterion.highestLevel()))
                            .cap();
        }
    }

    /** Those whom the rule may recommend: no person's baseline, and nobody whom a fact rules out. */
    List<CandidateView> contenders() {
        return candidates.stream()
                .filter(c -> !c.isBaseline() && c.ruledOutBy().isEmpty())
                .toList();
    }

    /** What a prompt costs each contender on average. */
    CostOfPrompts costs() {
        Map<CandidateId, String> contending =
                contenders().stream().collect(Collectors.toMap(CandidateView::id, CandidateView::key));
        return CostOfPrompts.of(answers.values().stream()
                .filter(a -> contending.containsKey(a.candidateId()))
                .map(a -> new CostOfPrompts.Cost(
                        Require.known(contending, a.candidateId()),
                        Require.known(prompts, a.promptId()).key(),
                        a.measures().cost() == null
                                ? OptionalDouble.empty()
                                : OptionalDouble.of(a.measures().cost().doubleValue()),
                        a.measures().currency() == null ? "" : a.measures().currency(),
                        a.measures().estimated()))
                .toList());
    }
}
