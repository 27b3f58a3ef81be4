package org.mossbank.core.ranking;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.DoubleStream;
import org.hipparchus.distribution.continuous.ChiSquaredDistribution;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.Require;

/**
 * Friedman's test: whether blocks (prompts, or raters) put the same things in the same order more than chance would.
 *
 * <p>\[ \chi^2 = \frac{12 \sum_i R_i^2 / (b k (k + 1)) - 3 b (k + 1)}{1 - \sum (t^3 - t) / (b (k^3 - k))} \]
 *
 * <p>with \(R_i\) the sum of a thing's midranks over \(b\) blocks of \(k\) things, and \(t\) the sizes of groups of equal values
 * within a block; \(k - 1\) degrees of freedom. Undefined if every block ties all things, without a block, or with one thing.
 * Kendall's coefficient of concordance is \( W = \chi^2 / (b (k - 1)) \), in [0, 1].
 *
 * <p>Sources: M. Friedman (1937), The use of ranks to avoid the assumption of normality, <i>JASA</i> 32(200), 675-701,
 * doi:10.1080/01621459.1937.10503522; M. Kendall and B. Babington Smith (1939), The problem of m rankings, <i>Annals of
 * Mathematical Statistics</i> 10(3), 275-287, doi:10.1214/aoms/1177732186.
 *
 * @param blocks     how many orders
 * @param things     how many things each puts in order
 * @param chiSquared corrected for ties
 * @param p          upper tail
 * @param rankSums   of each thing, in the order given
 */
public record Friedman(int blocks, int things, Estimate chiSquared, Estimate p, List<Double> rankSums) {
    public Friedman {
        rankSums = List.copyOf(rankSums);
    }

    /**
     * @param blocks one row each, all equally long
     * @throws IllegalArgumentException if rows are unequally long
     */
    public static Friedman of(List<double[]> blocks) {
        int b = blocks.size();
        int k = b == 0 ? 0 : blocks.get(0).length;
        double[] sums = new double[k];
        double ties = 0;
        for (double[] block : blocks) {
            Require.that(block.length == k, "block", "must be as long as the first: " + k, block.length);
            Ranks ranks = Ranks.of(block);
            ties += ranks.tieTerm();
            for (int i = 0; i < k; i++) {
                sums[i] += ranks.rank(i);
            }
        }
        List<Double> rankSums = new ArrayList<>(DoubleStream.of(sums).boxed().toList());
        double most = b * ((double) k * k * k - k);
        if (most == 0 || ties == most) {
            Estimate none = Estimate.undefined(b == 0 || k < 2 ? Reason.NO_DATA : Reason.ALL_TIED);
            return new Friedman(b, k, none, none, rankSums);
        }
        // Deviations from the mean rank sum, so that equal sums give exactly 0.
        double mean = b * (k + 1) / 2.0;
        double squares = DoubleStream.of(sums).map(r -> (r - mean) * (r - mean)).sum();
        double chiSquared = 12 * squares / (b * (double) k * (k + 1)) / (1 - ties / most);
        double p = 1 - new ChiSquaredDistribution(k - 1.0).cumulativeProbability(chiSquared);
        return new Friedman(b, k, Estimate.of(chiSquared), Estimate.of(p), rankSums);
    }

    /** Kendall's W. */
    public Estimate concordance() {
        return chiSquared.map(x -> x / (blocks * (things - 1.0)));
    }
}
