package org.mossbank.core.estimate;

import java.util.random.RandomGenerator;

/**
 * How often each of several things comes when as many are drawn with replacement as there are.
 *
 * <p>\[ (m_1 \dots m_k) \sim \mathrm{Multinomial}(n; t_1 / n \dots t_k / n), \quad n = \textstyle\sum_i t_i \] by binomials one after
 * the other, \( m_i \sim \mathrm{Bin}(n - \sum_{j < i} m_j, \; t_i / \sum_{j \ge i} t_j) \), each by inversion: counting is
 * quicker than drawing one by one. Cost O(k + n), about a nanosecond a thing drawn.
 *
 * <p>Source: L. Devroye (1986), <i>Non-Uniform Random Variate Generation</i>, ch. X.4 and XI.1.4.
 */
public final class Multinomial {
    /** Above this mean a binomial is put together from smaller ones, so that no probability underflows. */
    private static final double MOST_MEAN = 30;

    private static final double[] RECIPROCALS = new double[1024];

    static {
        for (int i = 1; i < RECIPROCALS.length; i++) {
            RECIPROCALS[i] = 1.0 / i;
        }
    }

    private Multinomial() {}

    /**
     * @param times how often each thing is there, at least 0
     * @return how often each came; together as many as there are
     */
    public static int[] draw(int[] times, RandomGenerator random) {
        int there = 0;
        for (int t : times) {
            there += t;
        }
        int[] drawn = new int[times.length];
        int left = there;
        for (int i = 0; i < times.length && left > 0; i++) {
            drawn[i] = times[i] >= there ? left : binomial(left, times[i] / (double) there, random);
            left -= drawn[i];
            there -= times[i];
        }
        return drawn;
    }

    private static int binomial(int n, double p, RandomGenerator random) {
        if (p > 0.5) {
            return n - binomial(n, 1 - p, random);
        }
        if (p == 0) {
            return 0;
        }
        int parts = (int) Math.ceil(n * p / MOST_MEAN);
        int sum = 0;
        for (int part = 0; part < parts; part++) {
            // As even as whole numbers can be.
            int size = (int) ((long) n * (part + 1) / parts - (long) n * part / parts);
            sum += inverted(size, p, random.nextDouble());
        }
        return sum;
    }

    /** The least x whose probability, with all below it, is above u. */
    private static int inverted(int n, double p, double u) {
        double odds = p / (1 - p);
        double a = (n + 1) * odds;
        double probability = Math.exp(n * Math.log1p(-p));
        double rest = u;
        int x = 0;
        while (rest > probability && x < n) {
            rest -= probability;
            x++;
            probability *= a * (x < RECIPROCALS.length ? RECIPROCALS[x] : 1.0 / x) - odds;
        }
        return x;
    }
}
