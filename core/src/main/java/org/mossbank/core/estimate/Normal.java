package org.mossbank.core.estimate;

/**
 * The upper tail of the standard normal distribution.
 *
 * <p>\[ Q(z) = \frac{1}{\sqrt{2 \pi}} \int_z^\infty e^{-t^2 / 2} dt \] by rational functions, right to 1e-14; a library's continued
 * fractions take ten times as long, and integrals over it ask for millions.
 *
 * <p>Source: J. Hart et al. (1968), <i>Computer Approximations</i>, algorithm 5666; beyond 7 standard deviations a continued
 * fraction, as in G. West (2005), Better approximations to cumulative normal functions, <i>Wilmott Magazine</i>, May, 70-76.
 */
public final class Normal {
    private static final double FAR = 10 / Math.sqrt(2);
    private static final double FARTHEST = 37;
    private static final double ROOT = Math.sqrt(2 * Math.PI);

    private static final double[] ABOVE = {
        3.52624965998911e-2,
        0.700383064443688,
        6.37396220353165,
        33.912866078383,
        112.079291497871,
        221.213596169931,
        220.206867912376
    };
    private static final double[] BELOW = {
        8.83883476483184e-2,
        1.75566716318264,
        16.064177579207,
        86.7807322029461,
        296.564248779674,
        637.333633378831,
        793.826512519948,
        440.413735824752
    };

    private Normal() {}

    /** How likely a value above z is. */
    public static double upper(double z) {
        double x = Math.abs(z);
        double tail = x > FARTHEST ? 0 : Math.exp(-x * x / 2) * factor(x);
        return z >= 0 ? tail : 1 - tail;
    }

    private static double factor(double x) {
        if (x < FAR) {
            return polynomial(ABOVE, x) / polynomial(BELOW, x);
        }
        double fraction = x + 0.65;
        for (int i = 4; i >= 1; i--) {
            fraction = x + i / fraction;
        }
        return 1 / fraction / ROOT;
    }

    private static double polynomial(double[] coefficients, double x) {
        double sum = 0;
        for (double c : coefficients) {
            sum = sum * x + c;
        }
        return sum;
    }
}
