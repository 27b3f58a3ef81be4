package org.mossbank.core.severity;

import org.mossbank.core.estimate.Require;

/**
 * One grade as the severity of raters sees it.
 *
 * @param cluster what is resampled together, usually the prompt
 * @param unit    what was graded: an answer on a criterion
 * @param rater   who graded it
 * @param level   0 … highest
 * @param highest the scale's highest level
 */
public record GradedUnit(String cluster, String unit, String rater, int level, int highest) {
    /** @throws IllegalArgumentException if the level lies outside the scale */
    public GradedUnit {
        Require.that(level >= 0 && level <= highest, "level", "must lie in [0, " + highest + "]", level);
    }

    boolean atAnEnd() {
        return level == 0 || level == highest;
    }
}
