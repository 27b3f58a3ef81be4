package org.mossbank.core.comparison;

import java.util.List;
import org.hipparchus.distribution.continuous.TDistribution;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Reason;

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

    CrossedMean(double mean, Estimate standardError, double freedom, Components components) {
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

    /** A value at a prompt and a rater. */
    record Cell(String prompt, String rater, double value) {}

    /**
     * @param cells  at least one; several of one prompt's family and rater count as their mean
     * @param groups which prompts are of one kind, and which are wordings of one
     */
    static CrossedMean of(List<Cell> cells, PromptGroups groups) {
        CrossedLayout layout = new CrossedLayout(cells, groups);
        double mean = layout.mean();
        if (layout.raters < 2) {
            return undefined(mean, Reason.TOO_FEW_TO_RESAMPLE);
        }
        if (layout.prompts <= layout.kinds) {
            return undefined(mean, Reason.TOO_FEW_TO_RESAMPLE);
        }
        return new CrossedFit(layout).mean(mean);
    }

    private static CrossedMean undefined(double mean, Reason reason) {
        return new CrossedMean(mean, Estimate.undefined(reason), 0, new Components(0, 0, 0));
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
        return new CrossedMean(mean, Estimate.of(Math.sqrt(drawn)), all, components);
    }

    /** Where the expected value lies, about another estimate of it, by as much as this one may be off. */
    Interval intervalAbout(double centre, double level) {
        if (standardError instanceof Estimate.Undefined none) {
            return Interval.undefined(none.reason());
        }
        double half = halfWidth(level);
        return new Interval.Bounds(centre - half, centre + half, level);
    }

    Interval interval(double level) {
        return intervalAbout(mean, level);
    }

    private double halfWidth(double level) {
        double error = standardError.value().orElseThrow();
        return error == 0 ? 0 : error * new TDistribution(freedom).inverseCumulativeProbability((1 + level) / 2);
    }

    /** Two-sided, of an expected value of 0. */
    Estimate p() {
        return standardError.map(error -> {
            if (error == 0) {
                return mean == 0 ? 1 : 0;
            }
            return 2 * new TDistribution(freedom).cumulativeProbability(-Math.abs(mean) / error);
        });
    }
}
