package org.mossbank.core.estimate;

import org.hipparchus.distribution.continuous.NormalDistribution;

/**
 * The score interval of a share: how often something is, judged from so many tries.
 *
 * <p>\[ \frac{x + z^2 / 2}{n + z^2} \pm \frac{z}{n + z^2} \sqrt{\frac{x (n - x)}{n} + \frac{z^2}{4}} \] with \(z\) the normal
 * quantile at \((1 + \lambda) / 2\). Shares in [0, 1]; undefined without a try. Where nothing was hit the lower limit is 0, where all
 * was the upper is 1.
 *
 * <p>Source: E. B. Wilson (1927), Probable inference, the law of succession, and statistical inference, <i>Journal of the American
 * Statistical Association</i> 22(158), 209-212, doi:10.1080/01621459.1927.10502953.
 */
public final class Wilson {
    private Wilson() {}

    /**
     * @param hits  that were
     * @param tries of so many
     * @param level confidence level
     * @throws IllegalArgumentException if there are more hits than tries, or a number is out of its range
     */
    public static Interval interval(int hits, int tries, double level) {
        Require.atLeast("hits", 0, hits);
        Require.that(tries >= hits, "tries", "must be at least the hits: " + hits, tries);
        Require.proportion("level", level);
        if (tries == 0) {
            return Interval.undefined(Reason.NO_DATA);
        }
        double z = new NormalDistribution().inverseCumulativeProbability((1 + level) / 2);
        double n = tries;
        double middle = (hits + z * z / 2) / (n + z * z);
        double half = z / (n + z * z) * Math.sqrt(hits * (n - hits) / n + z * z / 4);
        // At the ends the terms cancel but for rounding.
        double low = hits == 0 ? 0 : Math.max(0, middle - half);
        double high = hits == tries ? 1 : Math.min(1, middle + half);
        return new Interval.Bounds(low, high, level);
    }
}
