package org.mossbank.core.comparison;

import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.Student;

/**
 * The mean of values that stand at prompts × raters, with how sure it is for other prompts and other raters of the sort.
 *
 * <p>\[ x_{pr} = \mu_{k(p)} + P_p + R_r + \varepsilon_{pr}, \quad
 * \widehat{\mathrm{Var}}(\bar x) = \hat\sigma_P^2 \sum_p w_{p+}^2 + \hat\sigma_R^2 \sum_r w_{+r}^2
 * + \hat\sigma_\varepsilon^2 \sum_{pr} w_{pr}^2 \]
 *
 * <p>for \( \bar x = \sum w_{pr} x_{pr} \) over the cells there are; each prompt weighs alike, \( w_{pr} = 1 / (P n_p) \). Kinds \(k\) are fixed, prompts
 * within kinds and raters random. Components by fitting constants (Henderson's method 3), which is equal to expected mean
 * squares where the design is balanced; one that comes out negative is set to 0, and the others are taken from the model
 * without it. The mean then follows Student's t with Satterthwaite's degrees of freedom, \[ \nu = \frac{(\sum_i c_i
 * MS_i)^2}{\sum_i (c_i MS_i)^2 / \nu_i} \] where the variance is \( \sum_i c_i MS_i \).
 *
 * <p>In the unit of the values. Undefined with one rater, and without two prompts of one kind. Where nothing varies the standard error is 0. Cost O(cells + prompts × raters²). Sums of squares in two passes.
 *
 * <p>Sources: C. Henderson (1953), Estimation of variance and covariance components, <i>Biometrics</i> 9(2), 226-252,
 * doi:10.2307/3001853; F. Satterthwaite (1946), An approximate distribution of estimates of variance components,
 * <i>Biometrics Bulletin</i> 2(6), 110-114, doi:10.2307/3002019; components of 0: S. Hillis (2007), A comparison of denominator
 * degrees of freedom methods for multiple observer ROC analysis, <i>Statistics in Medicine</i> 26(3), 596-619,
 * doi:10.1002/sim.2532.
 */
public final class CrossedMean {
    private final double mean;
    private final Estimate standardError;
    private final double freedom;
    private final Components components;
    private final Here here;
    /** Made when it is first asked for. */
    private @Nullable Student student;

    CrossedMean(double mean, Estimate standardError, double freedom, Components components, Here here) {
        this.here = here;
        this.mean = mean;
        this.standardError = standardError;
        this.freedom = freedom;
        this.components = components;
    }

    /**
     * What the values vary by.
     *
     * @param prompt   between prompts of a kind
     * @param rater    between raters
     * @param residual what is left
     */
    public record Components(double prompt, double rater, double residual) {}

    /**
     * How far off the mean is on these very prompts, by these very raters: what one grade varies by, and nothing else. It is true of
     * this study alone, and says nothing of another.
     *
     * @param standardError undefined where no cells are left to tell it from
     * @param freedom       degrees of freedom of Student's t
     */
    record Here(Estimate standardError, double freedom) {}

    /** @param values of the pattern's cells, at least one */
    static CrossedMean of(CrossedPattern pattern, double[] values) {
        return pattern.comparesRaters()
                ? of(pattern, CrossedSums.of(pattern, values))
                : undefined(pattern.mean(values), Reason.TOO_FEW_TO_RESAMPLE);
    }

    /** @param sums of values of the pattern's cells */
    static CrossedMean of(CrossedPattern pattern, CrossedSums sums) {
        return pattern.comparesRaters()
                ? new CrossedFit(pattern, sums).mean()
                : undefined(sums.mean(), Reason.TOO_FEW_TO_RESAMPLE);
    }

    private static CrossedMean undefined(double mean, Reason reason) {
        Estimate none = Estimate.undefined(reason);
        return new CrossedMean(mean, none, 0, new Components(0, 0, 0), new Here(none, 0));
    }

    public double mean() {
        return mean;
    }

    public Estimate standardError() {
        return standardError;
    }

    /** Satterthwaite's; 0 where there is no standard error. */
    public double freedom() {
        return freedom;
    }

    public Components components() {
        return components;
    }

    /** Of the mean; 0 where nothing varies, or it is not known. */
    double variance() {
        double error = standardError.value().orElse(0);
        return error * error;
    }

    /** The same mean with what other pairs tell of its variance. */
    CrossedMean with(PairVariances others) {
        if (variance() == 0 || others.freedom() == 0) {
            return this;
        }
        double all = freedom + others.freedom();
        double drawn = (freedom * variance() + others.freedom() * others.variance()) / all;
        return new CrossedMean(mean, Estimate.of(Math.sqrt(drawn)), all, components, here);
    }

    /** Where the expected value lies, about another estimate of it, by as much as this one may be off. */
    Interval intervalAbout(double centre, double level) {
        if (standardError instanceof Estimate.Undefined none) {
            return Interval.undefined(none.reason());
        }
        double half = halfWidth(level);
        return new Interval.Bounds(centre - half, centre + half, level);
    }

    /** Where the expected value lies. */
    public Interval interval(double level) {
        return intervalAbout(mean, level);
    }

    /** Where the mean of these prompts by these raters lies. */
    Interval intervalHere(double level) {
        if (here.standardError instanceof Estimate.Undefined none) {
            return Interval.undefined(none.reason());
        }
        double half = here.standardError.value().orElseThrow()
                * Student.of(here.freedom).quantile((1 + level) / 2);
        return new Interval.Bounds(mean - half, mean + half, level);
    }

    private Student student() {
        Student known = student;
        if (known == null) {
            known = Student.of(freedom);
            student = known;
        }
        return known;
    }

    private double halfWidth(double level) {
        double error = standardError.value().orElseThrow();
        return error == 0 ? 0 : error * student().quantile((1 + level) / 2);
    }

    /** Two-sided, of an expected value of 0. */
    Estimate p() {
        return standardError.map(error -> {
            if (error == 0) {
                return mean == 0 ? 1 : 0;
            }
            return student().twoSidedP(mean / error);
        });
    }
}
