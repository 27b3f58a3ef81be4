package org.mossbank.core.assignment;

import java.util.OptionalInt;
import org.mossbank.core.estimate.Require;

/**
 * How work is shared out.
 *
 * @param ratersAnAnswer how many raters each answer gets at least; empty for all of them
 * @param repeatShare    share of a rater's sheets that come a second time, in [0, 0.5]
 */
public record PlanOptions(OptionalInt ratersAnAnswer, double repeatShare) {
    public static final double HIGHEST_REPEAT_SHARE = 0.5;

    /** Every rater gets every prompt, once. */
    public static final PlanOptions EVERYTHING = new PlanOptions(OptionalInt.empty(), 0);

    /** @throws IllegalArgumentException if an answer is to have no rater, or the share lies outside [0, 0.5] */
    public PlanOptions {
        ratersAnAnswer.ifPresent(k -> Require.atLeast("ratersAnAnswer", 1, k));
        Require.that(
                repeatShare >= 0 && repeatShare <= HIGHEST_REPEAT_SHARE,
                "repeatShare",
                "must lie in [0, 0.5]",
                repeatShare);
    }
}
