package org.mossbank.core.decision;

import org.mossbank.core.estimate.Require;

/**
 * What must hold for a recommendation, fixed with the brief. Floors belong to criteria and come with the evidence.
 *
 * @param floorOn       what of agreement must reach its floor
 * @param margin        smallest difference in score that matters to the team, in points of 100
 * @param minimumRaters least number of raters an answer
 * @param tieBreak      what decides between candidates that are equal
 * @param strictness    what else withholds a recommendation
 * @param allowance     how likely a false statement may be
 */
public record DecisionRule(
        FloorOn floorOn,
        double margin,
        int minimumRaters,
        TieBreak tieBreak,
        Strictness strictness,
        Allowance allowance) {
    /** @throws IllegalArgumentException if a value is out of its range */
    public DecisionRule {
        Require.that(margin >= 0 && margin <= 100, "margin", "must lie in [0, 100]", margin);
        Require.atLeast("minimumRaters", 1, minimumRaters);
    }

    /** All of the allowance for statements over all kinds. */
    public DecisionRule(FloorOn floorOn, double margin, int minimumRaters, TieBreak tieBreak, Strictness strictness) {
        this(floorOn, margin, minimumRaters, tieBreak, strictness, Allowance.OVERALL);
    }

    public DecisionRule withMargin(double other) {
        return new DecisionRule(floorOn, other, minimumRaters, tieBreak, strictness, allowance);
    }

    public DecisionRule withAllowance(Allowance other) {
        return new DecisionRule(floorOn, margin, minimumRaters, tieBreak, strictness, other);
    }

    /** What must reach the floor. */
    public enum FloorOn {
        ESTIMATE,
        LOWER_LIMIT,
        /** Withheld only where agreement is too low beyond doubt, or might be chance. */
        UPPER_LIMIT
    }

    /** What decides between equals; less is better. */
    public enum TieBreak {
        NONE,
        COST,
        TIME
    }

    /**
     * What withholds a recommendation rather than being told beside it.
     *
     * @param onMasking an answer that gives its candidate away
     * @param onSplits  a split without a settled grade
     */
    public record Strictness(boolean onMasking, boolean onSplits) {
        public static final Strictness LENIENT = new Strictness(false, false);
    }
}
