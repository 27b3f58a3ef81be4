package org.mossbank.core.agreement;

/**
 * How far apart two levels count: the squared distance of levels \(c\) and \(k\).
 *
 * <p>\[ \delta^2_{\mathrm{nominal}} = [c \ne k], \quad
 * \delta^2_{\mathrm{ordinal}} = \Bigl(\sum_{g=c}^{k} n_g - (n_c + n_k) / 2\Bigr)^2, \quad
 * \delta^2_{\mathrm{interval}} = (c - k)^2 \]
 *
 * <p>with \(n_g\) how often level \(g\) was given in all units that were graded twice or more. Levels that nobody gave do
 * not hold their neighbours apart in the ordinal distance. Dimensionless; 0 for equal levels.
 *
 * <p>Source: K. Krippendorff (2011), <i>Computing Krippendorff's alpha-reliability</i>, p. 6-7,
 * repository.upenn.edu/asc_papers/43.
 */
public enum Metric {
    NOMINAL,
    ORDINAL,
    INTERVAL
}
