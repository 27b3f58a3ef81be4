package org.mossbank.core.agreement;

import java.util.Arrays;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;

/**
 * The coincidence matrix of Krippendorff's alpha: how often each two levels meet in one unit, each unit weighing as much
 * as it has grades. Sums of such matrices are again one, so that a resample is a sum of parts.
 *
 * <p>\[ o_{ck} = \sum_u n_{uc} (n_{uk} - [c = k]) / (m_u - 1) \], where n_uc is how often unit u was given level c and m_u how
 * many grades it has; in grades. A unit with fewer than two adds nothing. Cost: linear in units, quadratic in levels.
 *
 * <p>Kept as the upper triangle, because the matrix is symmetric.
 *
 * <p>Source: K. Krippendorff (2011), <i>Computing Krippendorff's Alpha-Reliability</i>,
 * https://repository.upenn.edu/asc_papers/43.
 */
final class Coincidences {
    private final int levels;
    private final double[] upper;

    Coincidences(int levels) {
        this.levels = levels;
        this.upper = new double[levels * (levels + 1) / 2];
    }

    private int index(int low, int high) {
        return high * (high + 1) / 2 + low;
    }

    /** Adds a unit by its counts of levels; a unit with fewer than two grades has no pairs and adds nothing. */
    void addUnit(int[] counts) {
        int grades = 0;
        for (int count : counts) {
            grades += count;
        }
        if (grades < 2) {
            return;
        }
        for (int high = 0; high < levels; high++) {
            if (counts[high] != 0) {
                for (int low = 0; low < high; low++) {
                    upper[index(low, high)] += (double) counts[low] * counts[high] / (grades - 1);
                }
                upper[index(high, high)] += (double) counts[high] * (counts[high] - 1) / (grades - 1);
            }
        }
    }

    void add(Coincidences other) {
        add(other, 1);
    }

    /** The other, so many times. */
    void add(Coincidences other, int times) {
        if (times == 0) {
            return;
        }
        for (int i = 0; i < upper.length; i++) {
            upper[i] += times * other.upper[i];
        }
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Coincidences c && Arrays.equals(upper, c.upper);
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(upper);
    }

    /**
     * Alpha = 1 - (n - 1) Σ o_ck δ²_ck / Σ n_c n_k δ²_ck, both sums over c &lt; k (Krippendorff 2011, section C).
     */
    Estimate alpha(Metric metric, double[] scale) {
        double[] marginal = marginals();
        double total = 0;
        for (double n : marginal) {
            total += n;
        }
        if (total == 0) {
            return Estimate.undefined(Reason.NO_PAIRS);
        }
        double observed = 0;
        double expected = 0;
        for (int high = 1; high < levels; high++) {
            for (int low = 0; low < high; low++) {
                double product = marginal[low] * marginal[high];
                if (product != 0) {
                    double distance = squaredDistance(metric, low, high, marginal, scale);
                    observed += upper[index(low, high)] * distance;
                    expected += product * distance;
                }
            }
        }
        return expected == 0
                ? Estimate.undefined(Reason.ONE_LEVEL_ONLY)
                : Estimate.of(1 - (total - 1) * observed / expected);
    }

    private double[] marginals() {
        double[] marginal = new double[levels];
        for (int high = 0; high < levels; high++) {
            for (int low = 0; low < high; low++) {
                marginal[low] += upper[index(low, high)];
                marginal[high] += upper[index(low, high)];
            }
            marginal[high] += upper[index(high, high)];
        }
        return marginal;
    }

    private static double squaredDistance(Metric metric, int low, int high, double[] marginal, double[] scale) {
        return switch (metric) {
            case NOMINAL -> 1;
            case INTERVAL -> square(scale[high] - scale[low]);
            case ORDINAL -> {
                double between = -(marginal[low] + marginal[high]) / 2;
                for (int level = low; level <= high; level++) {
                    between += marginal[level];
                }
                yield square(between);
            }
        };
    }

    private static double square(double x) {
        return x * x;
    }
}
