package org.mossbank.core.estimate;

import org.hipparchus.distribution.continuous.BetaDistribution;
import org.hipparchus.distribution.discrete.BinomialDistribution;

/**
 * How often something came true, against how often chance alone would have it: exact.
 *
 * <p>\[ p = P(X \ge x), \; X \sim \mathrm{Bin}(n, \pi_0); \quad [B_{(1 - \lambda) / 2}(x, n - x + 1), \;
 * B_{(1 + \lambda) / 2}(x + 1, n - x)] \] with \(B_q(a, b)\) the quantiles of the beta distribution. Probabilities. Undefined
 * without a try; the lower limit is 0 where nothing came true, the upper 1 where all did.
 *
 * <p>Source: C. Clopper and E. Pearson (1934), The use of confidence or fiducial limits illustrated in the case of the binomial,
 * <i>Biometrika</i> 26(4), 404-413, doi:10.1093/biomet/26.4.404.
 *
 * @param hits     that came true
 * @param tries    of so many
 * @param share    of them
 * @param interval of the share
 * @param p        of as many or more by chance alone
 */
public record Binomial(int hits, int tries, Estimate share, Interval interval, Estimate p) {
    /**
     * @param chance the share that chance alone would have, in [0, 1]
     * @param level  confidence level
     * @throws IllegalArgumentException if there are more hits than tries, or a number is out of its range
     */
    public static Binomial of(int hits, int tries, double chance, double level) {
        Require.atLeast("hits", 0, hits);
        Require.that(tries >= hits, "tries", "must be at least the hits: " + hits, tries);
        Require.proportion("chance", chance);
        Require.proportion("level", level);
        if (tries == 0) {
            Estimate none = Estimate.undefined(Reason.NO_DATA);
            return new Binomial(0, 0, none, Interval.undefined(Reason.NO_DATA), none);
        }
        double low = hits == 0
                ? 0
                : new BetaDistribution(hits, tries - hits + 1.0).inverseCumulativeProbability((1 - level) / 2);
        double high = hits == tries
                ? 1
                : new BetaDistribution(hits + 1.0, tries - hits).inverseCumulativeProbability((1 + level) / 2);
        double p = hits == 0 ? 1 : 1 - new BinomialDistribution(tries, chance).cumulativeProbability(hits - 1);
        return new Binomial(
                hits,
                tries,
                Estimate.of(hits / (double) tries),
                new Interval.Bounds(low, high, level),
                Estimate.of(Math.max(0, Math.min(1, p))));
    }
}
