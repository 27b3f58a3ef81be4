package org.mossbank.core.comparison;

import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;

/**
 * How far one candidate stands above another, on the prompts and by the raters that both have.
 *
 * @param higher           the candidate with the higher adjusted mean
 * @param lower            the other
 * @param estimate         mean difference, in points of score
 * @param standardError    of the difference, for other prompts and other raters, in points
 * @param freedom          degrees of freedom of Student's t; 0 where there is no standard error
 * @param interval         at the nominal level
 * @param adjustedInterval at the level that Holm's correction leaves for this pair
 * @param adjustedP        two-sided, after Holm's correction over all pairs
 * @param here             at the nominal level, on these very prompts by these very raters: true of this study alone
 */
public record Difference(
        String higher,
        String lower,
        Estimate estimate,
        Estimate standardError,
        double freedom,
        Interval interval,
        Interval adjustedInterval,
        Estimate adjustedP,
        Interval here) {}
