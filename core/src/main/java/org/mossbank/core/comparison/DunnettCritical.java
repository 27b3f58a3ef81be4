package org.mossbank.core.comparison;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.hipparchus.analysis.UnivariateFunction;
import org.hipparchus.analysis.solvers.BrentSolver;
import org.hipparchus.distribution.continuous.ChiSquaredDistribution;
import org.mossbank.core.estimate.Normal;
import org.mossbank.core.estimate.Require;

/**
 * The one-sided critical value of Dunnett: how many standard errors several differences from one and the same candidate
 * exceed all at once by chance alone.
 *
 * <p>\[ P(\max_j T_j \le d) = \int_0^\infty f_s(s) \int_{-\infty}^\infty \varphi(z) \,
 * \Phi\!\left(\frac{d s + \sqrt\rho \, z}{\sqrt{1 - \rho}}\right)^{\!m} dz \, ds = 1 - \alpha \]
 *
 * <p>with \(m\) differences of equal correlation \(\rho\) and \(s = \sqrt{\chi^2_\nu / \nu}\). Dimensionless. With one difference
 * it is Student's quantile. Fixed points of integration, nothing drawn: right to 0.01. Values are kept, for degrees of freedom
 * in steps of 2 % and correlations of a fiftieth, both on the side that makes d larger.
 *
 * <p>Source: C. Dunnett (1955), A multiple comparison procedure for comparing several treatments with a control, <i>JASA</i>
 * 50(272), 1096-1121, doi:10.1080/01621459.1955.10501294.
 */
final class DunnettCritical {
    private static final int CHI_POINTS = 24;
    private static final int NORMAL_POINTS = 33;
    private static final double NORMAL_REACH = 5.5;
    private static final double PRECISION = 1e-4;
    /** From one kept number of degrees of freedom to the next. */
    private static final double STEP = 1.02;

    /** Beyond it Student's t is normal for all that matters here. */
    private static final double MOST_FREEDOM = 400;

    private static final Map<Key, Double> KNOWN = new ConcurrentHashMap<>();
    private static final Map<Double, double[]> SCALES = new ConcurrentHashMap<>();

    private record Key(int differences, double freedom, double correlation, double alpha) {}

    private DunnettCritical() {}

    /**
     * @param differences at least 1
     * @param freedom     at least 1
     * @param correlation in [0, 1)
     * @param alpha       one-sided, in (0, 0.5)
     */
    static double of(int differences, double freedom, double correlation, double alpha) {
        Require.atLeast("differences", 1, differences);
        Require.that(freedom >= 1, "freedom", "must be at least 1", freedom);
        Require.that(correlation >= 0 && correlation < 1, "correlation", "must lie in [0, 1)", correlation);
        double most = Math.min(MOST_FREEDOM, freedom);
        // A hair, so that a number that is a step stays one.
        double down = Math.pow(STEP, Math.floor(Math.log(most) / Math.log(STEP) + 1e-9));
        double less = Math.floor(correlation * 50 + 1e-9) / 50;
        Key key = new Key(differences, down, less, alpha);
        double[] scales = SCALES.computeIfAbsent(down, DunnettCritical::scales);
        return KNOWN.computeIfAbsent(key, k -> solve(differences, less, alpha, scales));
    }

    /** The value itself, not kept. */
    static double solve(int differences, double correlation, double alpha, double[] scales) {
        UnivariateFunction missing = d -> probability(differences, correlation, scales, d) - (1 - alpha);
        double high = 4;
        while (missing.value(high) < 0) {
            high *= 2;
        }
        return new BrentSolver(PRECISION).solve(200, missing, 0, high);
    }

    private static double probability(int differences, double correlation, double[] scales, double d) {
        double root = Math.sqrt(correlation);
        double rest = Math.sqrt(1 - correlation);
        double sum = 0;
        double weights = 0;
        double step = 2 * NORMAL_REACH / (NORMAL_POINTS - 1);
        for (int i = 0; i < NORMAL_POINTS; i++) {
            double z = -NORMAL_REACH + i * step;
            double weight = Math.exp(-z * z / 2);
            weights += weight;
            for (double s : scales) {
                sum += weight * Math.pow(Normal.upper(-(d * s + root * z) / rest), differences) / scales.length;
            }
        }
        return sum / weights;
    }

    /** The mean of s within slices of equal probability: the lower tail, which matters most, has its own fine ones. */
    static double[] scales(double freedom) {
        ChiSquaredDistribution chiSquared = new ChiSquaredDistribution(freedom);
        double[] scales = new double[CHI_POINTS];
        for (int i = 0; i < CHI_POINTS; i++) {
            scales[i] = Math.sqrt(chiSquared.inverseCumulativeProbability((i + 0.5) / CHI_POINTS) / freedom);
        }
        return scales;
    }
}
