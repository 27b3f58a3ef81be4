package org.mossbank.core.estimate;

import java.util.Arrays;
import java.util.function.DoubleUnaryOperator;

/**
 * The interval of a coefficient of agreement from what it is without each cluster in turn.
 *
 * <p>\[ \tilde g_i = n g - (n - 1) g_{(i)}, \quad g = \log(1 - \hat\alpha), \quad \bar g \pm t_{\nu} \sqrt{\textstyle\sum_i (\tilde
 * g_i - \bar g)^2 / (n (n - 1))} \] taken back by \(1 - e^g\). In the log an interval keeps clear of 1, as agreement does. Where
 * without some cluster all agree, the log has no value and the coefficient itself is used.
 *
 * <p>With \(\nu = (n - 1) / 2\) degrees of freedom, a departure from the source: clusters of ordinal grades make the variance less
 * sure than as many normal values. Simulated with 8 to 48 prompts and 3 to 8 raters, 94 to 96 % of the 95 % intervals of alpha hold
 * what the same raters would agree to over other prompts; with \(n - 1\) they were 93 to 94 %, with a bootstrap 86 to 93 %.
 *
 * <p>Undefined with fewer than two clusters, where the coefficient is undefined or 1, and where it is undefined without some
 * cluster. Nothing is drawn at random. Cost O(n).
 *
 * <p>Source: J. Arvesen (1969), Jackknifing U-statistics, <i>Annals of Mathematical Statistics</i> 40(6), 2076-2100,
 * doi:10.1214/aoms/1177697287.
 */
public final class Jackknife {
    private Jackknife() {}

    /**
     * @param whole   the coefficient of all clusters
     * @param without the coefficient without each cluster; NaN where it is undefined
     * @param level   confidence level, for example 0.95
     */
    public static Interval ofAgreement(Estimate whole, double[] without, double level) {
        Require.proportion("level", level);
        if (whole instanceof Estimate.Undefined none) {
            return Interval.undefined(none.reason());
        }
        double value = whole.value().orElseThrow();
        if (without.length < 2) {
            return Interval.undefined(Reason.TOO_FEW_TO_RESAMPLE);
        }
        if (value >= 1) {
            return Interval.undefined(Reason.ALL_ALIKE);
        }
        if (Arrays.stream(without).anyMatch(Double::isNaN)) {
            return Interval.undefined(Reason.ONE_LEVEL_ONLY);
        }
        boolean plain = Arrays.stream(without).anyMatch(x -> x >= 1);
        DoubleUnaryOperator there = plain ? x -> x : x -> Math.log(1 - x);
        DoubleUnaryOperator back = plain ? x -> x : x -> 1 - Math.exp(x);
        int n = without.length;
        double[] pseudo = Arrays.stream(without)
                .map(x -> n * there.applyAsDouble(value) - (n - 1) * there.applyAsDouble(x))
                .toArray();
        double mean = Arrays.stream(pseudo).average().orElseThrow();
        double squares = Arrays.stream(pseudo).map(x -> (x - mean) * (x - mean)).sum();
        double half =
                Math.sqrt(squares / n / (n - 1)) * Student.of((n - 1) / 2.0).quantile((1 + level) / 2);
        double one = back.applyAsDouble(mean - half);
        double other = back.applyAsDouble(mean + half);
        // The mean of pseudo-values may lie off the coefficient; an interval that leaves it out would puzzle.
        return new Interval.Bounds(Math.min(value, Math.min(one, other)), Math.max(value, Math.max(one, other)), level);
    }
}
