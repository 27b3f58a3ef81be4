package org.mossbank.core.diagnosis;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.IntStream;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.Student;

/**
 * How far something beside the answer moves grades: its place on the sheet, its length, the time of day, how far a rater has come.
 *
 * <p>The slope of score on what is suspected, with what the score owes to answer and rater swept out as far as they are told:
 * \[ y_{i} = \theta_{g(i)} + \lambda_{h(i)} + \beta x_i + \varepsilon_i \] by least squares, \(g\) and \(h\) two groupings (an
 * answer and a rater, or a sheet and a candidate). The interval is from leaving out each cluster in turn, or of more than fifty each
 * of fifty groups of them, with Student's t of one less than their number: scores of one cluster hang together. In points of score for each unit of x. Undefined where x does not
 * vary within the groups, and with fewer than two clusters. Cost O(sweeps × scores × groups).
 *
 * <p>Sources: R. Frisch and F. Waugh (1933), Partial time regressions as compared with individual trends, <i>Econometrica</i> 1(4),
 * 387-401, doi:10.2307/1907330; jackknife over clusters: R. Miller (1974), The jackknife, a review, <i>Biometrika</i> 61(1), 1-15,
 * doi:10.1093/biomet/61.1.1.
 *
 * @param slope    points for each unit of x
 * @param interval of it
 * @param scores   that it rests on
 */
public record Influence(Estimate slope, Interval interval, int scores) {
    private static final int MOST_SWEEPS = 200;
    private static final int MOST_GROUPS = 50;
    private static final double STILL = 1e-10;

    /**
     * One score with what may have moved it.
     *
     * @param first   what it belongs to, for example the answer
     * @param second  what else it belongs to, for example the rater
     * @param cluster what hangs together, for example the prompt
     * @param x       what is suspected
     * @param score   in points
     */
    public record Observation(String first, String second, String cluster, double x, double score) {}

    /** @param level confidence level, for example 0.95 */
    public static Influence of(List<Observation> observations, double level) {
        Estimate whole = slope(observations);
        if (whole instanceof Estimate.Undefined none) {
            return new Influence(whole, Interval.undefined(none.reason()), observations.size());
        }
        int[] group = numbers(observations, Observation::cluster);
        int clusters = Arrays.stream(group).max().orElse(-1) + 1;
        int n = Math.min(clusters, MOST_GROUPS);
        if (n < 2) {
            return new Influence(whole, Interval.undefined(Reason.TOO_FEW_TO_RESAMPLE), observations.size());
        }
        double value = whole.value().orElseThrow();
        double[] without = IntStream.range(0, n)
                .parallel()
                .mapToDouble(g -> slope(IntStream.range(0, group.length)
                                .filter(i -> group[i] % n != g)
                                .mapToObj(observations::get)
                                .toList())
                        .value()
                        .orElse(Double.NaN))
                .toArray();
        if (Arrays.stream(without).anyMatch(Double::isNaN)) {
            return new Influence(whole, Interval.undefined(Reason.CONSTANT), observations.size());
        }
        double mean = Arrays.stream(without).average().orElseThrow();
        double squares =
                Arrays.stream(without).map(w -> (w - mean) * (w - mean)).sum();
        double half = Math.sqrt(squares * (n - 1) / n) * Student.of(n - 1.0).quantile((1 + level) / 2);
        return new Influence(whole, new Interval.Bounds(value - half, value + half, level), observations.size());
    }

    private static Estimate slope(List<Observation> observations) {
        if (observations.isEmpty()) {
            return Estimate.undefined(Reason.NO_DATA);
        }
        int[] first = numbers(observations, Observation::first);
        int[] second = numbers(observations, Observation::second);
        double[] x = observations.stream().mapToDouble(Observation::x).toArray();
        double[] y = observations.stream().mapToDouble(Observation::score).toArray();
        double before = squares(x);
        sweep(x, first, second);
        sweep(y, first, second);
        double left = squares(x);
        if (!(left > STILL * before)) {
            return Estimate.undefined(Reason.CONSTANT);
        }
        double product = 0;
        for (int i = 0; i < x.length; i++) {
            product += x[i] * y[i];
        }
        return Estimate.of(product / left);
    }

    private static double squares(double[] x) {
        double mean = Arrays.stream(x).average().orElseThrow();
        return Arrays.stream(x).map(v -> (v - mean) * (v - mean)).sum();
    }

    private static int[] numbers(List<Observation> observations, Function<Observation, String> group) {
        Map<String, Integer> numbers = new HashMap<>();
        return observations.stream()
                .mapToInt(o -> numbers.computeIfAbsent(group.apply(o), g -> numbers.size()))
                .toArray();
    }

    /** Takes the means of both groupings away in turn, until nothing is left of them. */
    private static void sweep(double[] values, int[] first, int[] second) {
        for (int i = 0; i < MOST_SWEEPS; i++) {
            double moved = Math.max(takeMeans(values, first), takeMeans(values, second));
            if (moved < STILL) {
                return;
            }
        }
    }

    /** How far the furthest mean was from 0. */
    private static double takeMeans(double[] values, int[] group) {
        int groups = Arrays.stream(group).max().orElse(-1) + 1;
        double[] sum = new double[groups];
        int[] count = new int[groups];
        for (int i = 0; i < values.length; i++) {
            sum[group[i]] += values[i];
            count[group[i]]++;
        }
        double furthest = 0;
        for (int g = 0; g < groups; g++) {
            sum[g] /= count[g];
            furthest = Math.max(furthest, Math.abs(sum[g]));
        }
        for (int i = 0; i < values.length; i++) {
            values[i] -= sum[group[i]];
        }
        return furthest;
    }
}
