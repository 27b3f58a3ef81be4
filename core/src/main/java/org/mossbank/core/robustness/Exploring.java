package org.mossbank.core.robustness;

import java.util.List;
import java.util.Optional;
import java.util.function.BiPredicate;
import org.mossbank.core.comparison.ScoreGrid;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.decision.Decision;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.core.decision.Evidence;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.estimate.Resamples;

/**
 * What a rule would say under other weights, another margin, or without some of what was graded.
 *
 * <p>What follows from where scores stand alone is worked out once, when it is made; asking is fast from then on. Agreement, and how
 * many raters an answer has, are those of the evidence that is asked with: leaving out raters asks whether scores carry the outcome,
 * not whether a smaller study would have been enough. Nothing is drawn at random. Safe for several threads.
 */
public final class Exploring {
    private final GradedAnswers graded;
    private final Weighing weighing;
    private final double level;

    private Exploring(GradedAnswers graded, double level) {
        this.graded = graded;
        this.weighing = graded.weighing();
        this.level = level;
    }

    /**
     * @param graded grades of those whom the rule may recommend
     * @param level  confidence level of intervals
     */
    public static Exploring of(GradedAnswers graded, double level) {
        return new Exploring(graded, level);
    }

    /**
     * What is said, and the standings that it rests on.
     *
     * @param says the decision, to be compared with what another one says
     */
    public record Found(Decision decision, Standings standings, Statement says) {}

    /**
     * Asks once.
     *
     * @param weights  of the criteria in their order, at least 0
     * @param rule     with the margin that is asked about; where it tells kinds apart, they are
     * @param evidence what the rule looks at beside scores; its standings are not looked at
     * @param kept     what is not left out, by prompt and rater
     * @throws IllegalArgumentException unless there is one weight a criterion
     */
    public Found ask(double[] weights, DecisionRule rule, Evidence evidence, BiPredicate<String, String> kept) {
        Require.that(weights.length == graded.criteria().size(), "weights", "must be one a criterion", weights.length);
        Optional<ScoreGrid> grid = weighing.grid(weights);
        Standings standings = standings(grid, weights, kept);
        List<Evidence.WithinKind> kinds = rule.allowance().kinds() == 0
                ? List.of()
                : graded.kinds().stream()
                        .map(k -> new Evidence.WithinKind(k, standings(grid, weights, kept.and(ofKind(k)))))
                        .filter(k -> !k.standings().standings().isEmpty())
                        .toList();
        Evidence asked = new Evidence(
                evidence.state(), evidence.answers(), evidence.agreement(), standings, evidence.contenders(), kinds);
        Decision decision = Decision.of(rule, asked);
        return new Found(decision, standings, Statement.of(decision, rule.margin()));
    }

    private BiPredicate<String, String> ofKind(String kind) {
        return (prompt, rater) -> graded.groups().kindOf().apply(prompt).equals(kind);
    }

    /** Where some candidate has no score left, the others are compared without it. */
    private Standings standings(Optional<ScoreGrid> grid, double[] weights, BiPredicate<String, String> kept) {
        Optional<ScoreGrid> rest = grid.flatMap(g -> g.keeping(kept));
        return (rest.isPresent() ? rest : graded.keeping(kept).grid(weights))
                .map(g -> Standings.of(g, new Standings.Options(0, level), Resamples.generator(0)))
                .orElse(new Standings(List.of(), List.of()));
    }
}
