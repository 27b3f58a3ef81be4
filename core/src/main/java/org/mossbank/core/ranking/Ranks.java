package org.mossbank.core.ranking;

import java.util.Arrays;
import java.util.Comparator;
import java.util.stream.IntStream;

/**
 * Ranks from 1, the lowest value first; equal values share the mean of their places (midranks).
 *
 * <p>\[ r_i = \#\{j : x_j < x_i\} + (\#\{j : x_j = x_i\} + 1) / 2 \]
 */
public final class Ranks {
    private final double[] ranks;
    private final double tied;

    private Ranks(double[] ranks, double tied) {
        this.ranks = ranks;
        this.tied = tied;
    }

    /** Cost O(n log n). */
    public static Ranks of(double... values) {
        int n = values.length;
        Integer[] order = IntStream.range(0, n).boxed().toArray(Integer[]::new);
        Arrays.sort(order, Comparator.comparingDouble(i -> values[i]));
        double[] ranks = new double[n];
        double tied = 0;
        for (int from = 0; from < n; ) {
            int to = from;
            while (to < n && values[order[to]] == values[order[from]]) {
                to++;
            }
            for (int i = from; i < to; i++) {
                ranks[order[i]] = (from + to + 1) / 2.0;
            }
            double t = to - from;
            tied += t * t * t - t;
            from = to;
        }
        return new Ranks(ranks, tied);
    }

    public double rank(int i) {
        return ranks[i];
    }

    public double[] toArray() {
        return ranks.clone();
    }

    /** \( \sum (t^3 - t) \) over groups of \(t\) equal values; 0 without ties. */
    public double tieTerm() {
        return tied;
    }
}
