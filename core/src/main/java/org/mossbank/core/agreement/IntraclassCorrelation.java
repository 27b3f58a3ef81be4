package org.mossbank.core.agreement;

import org.hipparchus.distribution.continuous.FDistribution;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Reason;

/**
 * Intraclass correlations: which share of the variance of scores lies between units, by one rater or by the mean of all.
 *
 * <p>With mean squares between units \(B\), within units \(W\), between raters \(J\), and the residual \(E\) of \(n\) units ×
 * \(k\) raters:
 *
 * <p>\[ \mathrm{ICC}(1,1) = \frac{B - W}{B + (k - 1) W}, \quad
 * \mathrm{ICC}(2,1) = \frac{B - E}{B + (k - 1) E + k (J - E) / n}, \quad
 * \mathrm{ICC}(3,1) = \frac{B - E}{B + (k - 1) E} \]
 *
 * <p>\[ \mathrm{ICC}(1,k) = \frac{B - W}{B}, \quad \mathrm{ICC}(2,k) = \frac{B - E}{B + (J - E) / n}, \quad
 * \mathrm{ICC}(3,k) = \frac{B - E}{B} \]
 *
 * <p>(2) is absolute agreement, raters as drawn from many; (3) is consistency, these raters. Dimensionless, at most 1; may be
 * negative. Undefined below two complete units or two raters and where no variance is left to compare with. Intervals at 95 %
 * from F, those of ICC(2,1) with Satterthwaite's degrees of freedom and of ICC(2,k) from them by Spearman and Brown; undefined
 * where the error they compare with is 0. Sums of squares in two passes.
 *
 * <p>Sources: P. Shrout and J. Fleiss (1979), Intraclass correlations, <i>Psychological Bulletin</i> 86(2), 420-428,
 * doi:10.1037/0033-2909.86.2.420; K. McGraw and S. Wong (1996), Forming inferences about some intraclass correlation
 * coefficients, <i>Psychological Methods</i> 1(1), 30-46, doi:10.1037/1082-989X.1.1.30.
 *
 * @param units       complete units, n
 * @param raters      k
 * @param betweenUnits   B
 * @param withinUnits    W
 * @param betweenRaters  J
 * @param residual       E
 * @param oneWay      of one rater and of the mean of k, each unit with raters of its own
 * @param agreement   absolute agreement
 * @param consistency consistency
 */
public record IntraclassCorrelation(
        int units,
        int raters,
        Estimate betweenUnits,
        Estimate withinUnits,
        Estimate betweenRaters,
        Estimate residual,
        Form oneWay,
        Form agreement,
        Form consistency) {
    private static final double LEVEL = 0.95;
    /** A mean square below this share of the squared scores is rounding, and stands for 0. */
    private static final double ROUNDING = 1e-26;

    /** One form of the coefficient: for a single rater, and for the mean of all. */
    public record Form(Estimate single, Interval singleInterval, Estimate mean, Interval meanInterval) {
        private static Form undefined(Reason reason) {
            Estimate none = Estimate.undefined(reason);
            Interval noInterval = Interval.undefined(reason);
            return new Form(none, noInterval, none, noInterval);
        }
    }

    public static IntraclassCorrelation of(ScoreTable table) {
        int n = table.units();
        int k = table.raters().size();
        if (n < 2 || k < 2) {
            Estimate none = Estimate.undefined(Reason.TOO_FEW_COMPLETE);
            Form form = Form.undefined(Reason.TOO_FEW_COMPLETE);
            return new IntraclassCorrelation(n, k, none, none, none, none, form, form, form);
        }
        MeanSquares ms = MeanSquares.of(table);
        return new IntraclassCorrelation(
                n,
                k,
                Estimate.of(ms.b),
                Estimate.of(ms.w),
                Estimate.of(ms.j),
                Estimate.of(ms.e),
                ms.oneWay(),
                ms.agreement(),
                ms.consistency());
    }

    private record MeanSquares(int n, int k, double b, double w, double j, double e) {
        static MeanSquares of(ScoreTable table) {
            int n = table.units();
            int k = table.raters().size();
            double[] unitMean = new double[n];
            double[] raterMean = new double[k];
            double grand = 0;
            double squares = 0;
            for (int u = 0; u < n; u++) {
                for (int r = 0; r < k; r++) {
                    double x = table.value(u, r);
                    unitMean[u] += x / k;
                    raterMean[r] += x / n;
                    grand += x / n / k;
                    squares += x * x;
                }
            }
            double b = 0;
            double w = 0;
            double j = 0;
            double e = 0;
            for (int u = 0; u < n; u++) {
                b += k * square(unitMean[u] - grand);
                for (int r = 0; r < k; r++) {
                    w += square(table.value(u, r) - unitMean[u]);
                    e += square(table.value(u, r) - unitMean[u] - raterMean[r] + grand);
                }
            }
            for (int r = 0; r < k; r++) {
                j += n * square(raterMean[r] - grand);
            }
            double least = ROUNDING * squares;
            return new MeanSquares(
                    n,
                    k,
                    zeroBelow(least, b) / (n - 1),
                    zeroBelow(least, w) / (n * (k - 1.0)),
                    zeroBelow(least, j) / (k - 1),
                    zeroBelow(least, e) / ((n - 1.0) * (k - 1)));
        }

        private static double square(double x) {
            return x * x;
        }

        private static double zeroBelow(double least, double sum) {
            return sum <= least ? 0 : sum;
        }

        private static Estimate ratio(double part, double whole) {
            return whole == 0 ? Estimate.undefined(Reason.NO_VARIANCE) : Estimate.of(part / whole);
        }

        Form oneWay() {
            return ofRatio(w, n * (k - 1.0));
        }

        Form consistency() {
            return ofRatio(e, (n - 1.0) * (k - 1));
        }

        /** ICC(1) and ICC(3): limits by F = B / error with n - 1 and so many degrees of freedom. */
        private Form ofRatio(double error, double freedom) {
            Estimate single = ratio(b - error, b + (k - 1) * error);
            Estimate mean = ratio(b - error, b);
            if (error == 0) {
                Interval none = Interval.undefined(Reason.NO_VARIANCE);
                return new Form(single, none, mean, none);
            }
            double f = b / error;
            double low = f / quantile(n - 1.0, freedom);
            double high = f * quantile(freedom, n - 1.0);
            return new Form(
                    single,
                    new Interval.Bounds((low - 1) / (low + k - 1), (high - 1) / (high + k - 1), LEVEL),
                    mean,
                    low == 0
                            ? Interval.undefined(Reason.NO_VARIANCE)
                            : new Interval.Bounds(1 - 1 / low, 1 - 1 / high, LEVEL));
        }

        Form agreement() {
            Estimate single = ratio(b - e, b + (k - 1) * e + k * (j - e) / n);
            Estimate mean = ratio(b - e, b + (j - e) / n);
            Interval interval = single.value().isPresent()
                    ? agreementInterval(single.value().getAsDouble())
                    : Interval.undefined(Reason.NO_VARIANCE);
            return new Form(single, interval, mean, stepUp(interval));
        }

        /** McGraw and Wong (1996), table 7, multiplied out so that a residual of 0 needs no case of its own. */
        private Interval agreementInterval(double rho) {
            double raterPart = k * rho * j;
            double restPart = (n * (1 + (k - 1) * rho) - k * rho) * e;
            double freedomBelow = (n - 1.0) * raterPart * raterPart + restPart * restPart;
            if (freedomBelow == 0) {
                return Interval.undefined(Reason.NO_VARIANCE);
            }
            double freedom = (k - 1.0) * (n - 1) * square(raterPart + restPart) / freedomBelow;
            double f = quantile(n - 1.0, freedom);
            double g = quantile(freedom, n - 1.0);
            double rest = k * j + (k * (double) n - k - n) * e;
            return new Interval.Bounds(
                    n * (b - f * e) / (f * rest + n * b), n * (g * b - e) / (rest + n * g * b), LEVEL);
        }

        /** Spearman and Brown: of the mean of k raters from that of one. */
        private Interval stepUp(Interval interval) {
            // Below -1 / (k - 1) the mean of k raters has no variance of its own: there is nothing to step up to.
            if (interval instanceof Interval.Bounds low && 1 + (k - 1) * low.low() <= 0) {
                return Interval.undefined(Reason.NO_VARIANCE);
            }
            return interval instanceof Interval.Bounds bounds
                    ? new Interval.Bounds(stepUp(bounds.low()), stepUp(bounds.high()), LEVEL)
                    : interval;
        }

        private double stepUp(double rho) {
            return k * rho / (1 + (k - 1) * rho);
        }

        private static double quantile(double above, double below) {
            return new FDistribution(above, below).inverseCumulativeProbability((1 + LEVEL) / 2);
        }
    }
}
