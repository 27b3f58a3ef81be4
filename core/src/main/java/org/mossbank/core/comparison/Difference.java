package org.mossbank.core.comparison;

import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;

/**
 * How far one candidate stands above another, on the same prompts and by the same raters.
 *
 * @param higher           the candidate with the higher adjusted mean
 * @param lower            the other
 * @param estimate         difference of adjusted means, in points of score
 * @param interval         paired, over the same resamples for both, at the nominal level
 * @param adjustedInterval the same at the level that Holm's correction leaves for this pair
 * @param adjustedP        two-sided bootstrap p value after Holm's correction over all pairs
 */
public record Difference(
        String higher,
        String lower,
        Estimate estimate,
        Interval interval,
        Interval adjustedInterval,
        Estimate adjustedP) {}
