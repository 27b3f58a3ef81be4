package org.mossbank.core.estimate;

import org.hipparchus.distribution.continuous.NormalDistribution;
import org.hipparchus.distribution.continuous.TDistribution;
import org.hipparchus.special.Beta;

/**
 * Student's t with some degrees of freedom.
 *
 * <p>\[ P(|T| > t) = I_{\nu / (\nu + t^2)}(\nu / 2, 1 / 2) \], the regularized incomplete beta function, by its continued
 * fraction. What hangs on the degrees of freedom alone is worked out once: planning asks for millions. A quantile begins at the
 * series of Cornish and Fisher and is made exact by Newton's method, as the distribution function is concave above 0.
 *
 * <p>Source: M. Abramowitz and I. Stegun (1964), <i>Handbook of Mathematical Functions</i>, 26.5.8, 26.7.1 and 26.7.5.
 */
public final class Student {
    private static final NormalDistribution NORMAL = new NormalDistribution();
    /** Below it the series is no beginning. */
    private static final double FEW = 3;

    private static final int MOST_STEPS = 30;
    private static final int MOST_TERMS = 5000;
    private static final double PRECISION = 1e-13;
    private static final double TINY = 1e-300;

    private final double freedom;
    /** The density at 0. */
    private final double peak;

    private final double logBeta;

    private Student(double freedom) {
        this.freedom = freedom;
        logBeta = Beta.logBeta(freedom / 2, 0.5);
        peak = Math.exp(-logBeta) / Math.sqrt(freedom);
    }

    /**
     * @param freedom above 0
     * @throws IllegalArgumentException if it is not
     */
    public static Student of(double freedom) {
        Require.that(freedom > 0, "freedom", "must be above 0", freedom);
        return new Student(freedom);
    }

    /** @param p in (0, 1) */
    public double quantile(double p) {
        if (p < 0.5) {
            return -quantile(1 - p);
        }
        if (freedom < FEW) {
            return new TDistribution(freedom).inverseCumulativeProbability(p);
        }
        double x = begin(NORMAL.inverseCumulativeProbability(p));
        for (int step = 0; step < MOST_STEPS; step++) {
            double change = ((1 - p) - upper(x)) / density(x);
            x -= change;
            if (Math.abs(change) <= PRECISION * Math.max(1, x)) {
                return x;
            }
        }
        return new TDistribution(freedom).inverseCumulativeProbability(p);
    }

    private double upper(double t) {
        return t >= 0 ? twoSidedP(t) / 2 : 1 - twoSidedP(t) / 2;
    }

    private double begin(double z) {
        double z2 = z * z;
        return z + z * (z2 + 1) / (4 * freedom) + z * ((5 * z2 + 16) * z2 + 3) / (96 * freedom * freedom);
    }

    private double density(double t) {
        return peak * Math.exp(-(freedom + 1) / 2 * Math.log1p(t * t / freedom));
    }

    /** How likely a value as far from 0 is, to either side. */
    public double twoSidedP(double t) {
        double square = t * t;
        if (Double.isInfinite(square)) {
            return 0;
        }
        double x = freedom / (freedom + square);
        if (x >= 1) {
            return 1;
        }
        double a = freedom / 2;
        double rest = square / (freedom + square);
        double front = Math.exp(a * Math.log(x) + 0.5 * Math.log(rest) - logBeta);
        // The fraction converges fast below the mean; above it the other tail is worked out.
        return x < (a + 1) / (a + 2.5) ? front * fraction(x, a, 0.5) / a : 1 - front * fraction(rest, 0.5, a) / 0.5;
    }

    /** 26.5.8, from its beginning to its end (the method of Lentz). */
    private static double fraction(double x, double a, double b) {
        double c = 1;
        double d = 1 / notZero(1 - (a + b) * x / (a + 1));
        double h = d;
        for (int m = 1; m <= MOST_TERMS; m++) {
            double even = m * (b - m) * x / ((a + 2 * m - 1) * (a + 2 * m));
            d = 1 / notZero(1 + even * d);
            c = notZero(1 + even / c);
            h *= d * c;
            double odd = -(a + m) * (a + b + m) * x / ((a + 2 * m) * (a + 2 * m + 1));
            d = 1 / notZero(1 + odd * d);
            c = notZero(1 + odd / c);
            double last = d * c;
            h *= last;
            if (Math.abs(last - 1) < 1e-15) {
                break;
            }
        }
        return h;
    }

    private static double notZero(double x) {
        return Math.abs(x) < TINY ? TINY : x;
    }
}
