package org.mossbank.core.comparison;

import java.util.List;
import org.hipparchus.special.Gamma;

/**
 * What the pairs of a study tell of each other's variances. Sixteen prompts in four kinds leave twelve degrees of freedom to a
 * pair; six pairs together know more of how much candidates differ by prompt, if they are alike in it.
 *
 * <p>Each pair's variance \(s_g^2\), with \(\nu_g\) degrees of freedom, is drawn towards a common one: \[ \tilde s_g^2 =
 * \frac{\nu_g s_g^2 + \nu_0 s_0^2}{\nu_g + \nu_0} \] with \(\nu_g + \nu_0\) degrees of freedom. \(\nu_0\) and \(s_0^2\) are
 * fitted to the spread of \(\log s_g^2\): the more pairs differ, the less they are drawn. Two departures from the source, found
 * by simulation: pairs share candidates, so a quarter less spread is expected of alike ones; and \(\nu_0\) is at most half of
 * the mean \(\nu_g\), so that a pair with an erratic candidate keeps most of its own variance.
 *
 * <p>Source: G. Smyth (2004), Linear models and empirical Bayes methods for assessing differential expression in microarray
 * experiments, <i>Statistical Applications in Genetics and Molecular Biology</i> 3(1), art. 3, doi:10.2202/1544-6115.1027, sec.
 * 6.2.
 *
 * @param variance the common one, in squared points
 * @param freedom  what it counts for; 0 where nothing is known
 */
record PairVariances(double variance, double freedom) {
    private static final double SHARED = 0.25;
    private static final double MOST = 0.5;
    /** Where pairs differ no more than chance would have it, the fit has no end. */
    private static final double ENDLESS = 1e6;

    private static final PairVariances NONE = new PairVariances(0, 0);

    /** From those pairs that have a variance above 0. */
    static PairVariances of(List<CrossedMean> pairs) {
        List<CrossedMean> known = pairs.stream().filter(p -> p.variance() > 0).toList();
        int n = known.size();
        if (n < 2) {
            return NONE;
        }
        double[] log = new double[n];
        double mean = 0;
        double chance = 0;
        double freedom = 0;
        for (int g = 0; g < n; g++) {
            double half = known.get(g).freedom() / 2;
            log[g] = Math.log(known.get(g).variance()) - Gamma.digamma(half) + Math.log(half);
            mean += log[g] / n;
            chance += (1 - SHARED) * Gamma.trigamma(half) / n;
            freedom += 2 * half / n;
        }
        double spread = -chance;
        for (double x : log) {
            spread += (x - mean) * (x - mean) / (n - 1);
        }
        double fitted = spread > 0 ? Math.min(ENDLESS, 2 * inverseTrigamma(spread)) : ENDLESS;
        double common = Math.exp(mean + Gamma.digamma(fitted / 2) - Math.log(fitted / 2));
        return new PairVariances(common, Math.min(fitted, MOST * freedom));
    }

    /** Newton's method on 1 / ψ', which is nearly straight (Smyth 2004, appendix). */
    private static double inverseTrigamma(double x) {
        double y = 0.5 + 1 / x;
        for (int step = 0; step < 50; step++) {
            double trigamma = Gamma.trigamma(y);
            double h = 1e-5 * y;
            double slope = (Gamma.trigamma(y + h) - trigamma) / h;
            double change = trigamma * (1 - trigamma / x) / slope;
            y += change;
            if (Math.abs(change) < 1e-9 * y) {
                break;
            }
        }
        return y;
    }
}
