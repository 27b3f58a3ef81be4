package org.mossbank.server.recommendation;

import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.mossbank.core.comparison.ScoreGrid;
import org.mossbank.core.comparison.Standing;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.decision.Decision;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.core.decision.Evidence;
import org.mossbank.core.estimate.Resamples;
import org.mossbank.core.robustness.GradedAnswers;
import org.mossbank.core.tradeoff.CostOfPrompts;
import org.mossbank.server.agreement.StudyAgreement;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.study.RuleTerms;

/** What the rule makes of the scores. */
record Ruling(Standings overall, List<Evidence.WithinKind> kinds, Decision decision) {
    static final Standings.Options OPTIONS = Standings.Options.USUAL;
    private static final int FEWEST_RESAMPLES = 400;
    /** Above so many grades there are fewer resamples, in proportion. */
    private static final double MANY_GRADES = 30_000;

    static final Standings.Options WITHOUT_CHANCES = new Standings.Options(0, OPTIONS.level());

    static Ruling of(RecommendationData data, StudyAgreement agreed, int giveAways, RuleTerms.FailedAnswers failed) {
        return of(data, agreed, giveAways, data.graded(failed, true));
    }

    static Ruling of(RecommendationData data, StudyAgreement agreed, int giveAways, GradedAnswers graded) {
        DecisionRule rule = data.decisionRule();
        // Whom the rule may not recommend is in no correction, and takes no chance of standing highest from others.
        GradedAnswers contending = graded.ofCandidates(
                data.contenders().stream().map(CandidateView::key).toList());
        Standings decisive = standings(contending.weighing().grid(data.weights()), options(data), data);
        List<Evidence.WithinKind> kinds = rule.allowance().kinds() == 0
                ? List.of()
                : data.prompts().values().stream()
                        .map(p -> p.kind().key())
                        .distinct()
                        .sorted()
                        .map(k -> new Evidence.WithinKind(
                                k, standings(contending.ofKind(k).grid(data.weights()), WITHOUT_CHANCES, data)))
                        .filter(k -> !k.standings().standings().isEmpty())
                        .toList();
        Evidence evidence = evidence(data, agreed, decisive, giveAways, kinds);
        Standings whole =
                contending == graded ? decisive : standings(graded.grid(data.weights()), WITHOUT_CHANCES, data);
        return new Ruling(joined(decisive, whole), kinds, Decision.of(rule, evidence));
    }

    /** The chance of standing highest decides nothing: of a large study it is drawn from fewer resamples. */
    static Standings.Options options(RecommendationData data) {
        double share = Math.min(1, MANY_GRADES / data.grades().size());
        return new Standings.Options((int) Math.max(FEWEST_RESAMPLES, OPTIONS.resamples() * share), OPTIONS.level());
    }

    /** Contenders as they stand among themselves, with the others beside them. */
    private static Standings joined(Standings decisive, Standings whole) {
        Set<String> contending =
                decisive.standings().stream().map(Standing::candidate).collect(Collectors.toSet());
        return new Standings(
                Stream.concat(
                                decisive.standings().stream(),
                                whole.standings().stream().filter(s -> !contending.contains(s.candidate())))
                        .sorted(Comparator.comparingDouble(
                                s -> -s.adjusted().value().orElse(Double.NEGATIVE_INFINITY)))
                        .toList(),
                Stream.concat(
                                decisive.differences().stream(),
                                whole.differences().stream()
                                        .filter(d ->
                                                !contending.contains(d.higher()) || !contending.contains(d.lower())))
                        .toList());
    }

    static Standings standings(Optional<ScoreGrid> grid, Standings.Options options, RecommendationData data) {
        return grid.map(g -> Standings.of(
                        g, options, Resamples.generator(data.study().seed())))
                .orElse(new Standings(List.of(), List.of()));
    }

    static Evidence evidence(
            RecommendationData data,
            StudyAgreement agreement,
            Standings overall,
            int giveAways,
            List<Evidence.WithinKind> kinds) {
        Map<AnswerId, Long> raters = data.ratersByAnswer();
        CostOfPrompts costs = data.costs();
        return new Evidence(
                new Evidence.State(data.study().isBriefClosed(), giveAways, data.unsettledSplits()),
                data.answers().values().stream()
                        .filter(a -> !a.isWithoutText())
                        .map(a -> new Evidence.AnswerRaters(
                                a.id().toString(),
                                raters.getOrDefault(a.id(), 0L).intValue()))
                        .toList(),
                agreement.decisive().stream()
                        .filter(c -> c.weight() > 0)
                        .map(c -> new Evidence.CriterionAgreement(
                                c.criterionId().toString(), c.value(), c.interval(), c.floor()))
                        .toList(),
                overall,
                data.contenders().stream()
                        .map(c -> new Evidence.Contender(c.key(), tieBreakValue(c, data, costs)))
                        .toList(),
                kinds);
    }

    /** What the tie-break compares: what a prompt costs a candidate on average, or the median time of its answers. */
    private static OptionalDouble tieBreakValue(CandidateView candidate, RecommendationData data, CostOfPrompts costs) {
        return switch (data.rule().tieBreak()) {
            case NONE -> OptionalDouble.empty();
            case COST -> costs.mean(candidate.key());
            case TIME -> {
                Long median = Measured.of(candidate, data).medianTotalMs();
                yield median == null ? OptionalDouble.empty() : OptionalDouble.of(median);
            }
        };
    }
}
