package org.mossbank.core.decision;

import java.util.List;
import org.mossbank.core.estimate.Require;

/**
 * How likely it may be that anything false is said of the candidates, five in a hundred in all.
 *
 * @param overall for what is said over all kinds
 * @param kinds   for what is said within kinds, all of them together; 0 where nothing is
 */
public record Allowance(double overall, double kinds) {
    private static final double IN_ALL = 0.05;

    /** All of it over all kinds; nothing is said within kinds. */
    public static final Allowance OVERALL = new Allowance(IN_ALL, 0);

    /** A fifth of it for the kinds. */
    public static final Allowance WITH_KINDS = new Allowance(0.04, 0.01);

    /** @throws IllegalArgumentException if both together are above 0.05, or one is out of its range */
    public Allowance {
        Require.that(overall > 0, "overall", "must be above 0", overall);
        Require.that(kinds >= 0, "kinds", "must not be negative", kinds);
        Require.that(overall + kinds <= IN_ALL + 1e-12, "allowance", "must be at most 0.05", overall + kinds);
    }

    /**
     * What is left of it for the last of these looks.
     *
     * @param information the share of the planned prompts that counted at each look so far, ascending, the present one last
     * @throws IllegalArgumentException as {@link Looks#levels}
     */
    public Allowance at(List<Double> information) {
        int last = information.size() - 1;
        // Where nothing may be spent yet, as little as can be told from nothing.
        return new Allowance(
                Math.max(Double.MIN_NORMAL, Looks.levels(overall, information).get(last)),
                kinds == 0 ? 0 : Looks.levels(kinds, information).get(last));
    }
}
