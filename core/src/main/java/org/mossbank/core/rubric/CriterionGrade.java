package org.mossbank.core.rubric;

import org.mossbank.core.estimate.Require;

/**
 * A level on a criterion, with what the criterion weighs.
 *
 * @param weight  at least 0; weights need not sum to 1
 * @param level   0 … highest
 * @param highest the scale's highest level, at least 1
 * @param cap     the most that the whole answer may score with this grade, in [0, 100]; 100 is no cap
 */
public record CriterionGrade(double weight, int level, int highest, double cap) {
    /**
     * @throws IllegalArgumentException if the weight is negative or not finite, the level lies outside the scale, or the
     *     cap outside [0, 100]
     */
    public CriterionGrade {
        Require.that(Require.finite("weight", weight) >= 0, "weight", "must not be negative", weight);
        Require.atLeast("highest", 1, highest);
        Require.that(level >= 0 && level <= highest, "level", "must lie in [0, " + highest + "]", level);
        Require.that(cap >= 0 && cap <= OverallScore.HIGHEST, "cap", "must lie in [0, 100]", cap);
    }

    /** A grade that caps nothing. */
    public static CriterionGrade of(double weight, int level, int highest) {
        return new CriterionGrade(weight, level, highest, OverallScore.HIGHEST);
    }
}
