package org.mossbank.core.ranking;

import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.Require;

/**
 * How far two numbers of the same things put them in the same order.
 *
 * <p>\[ \rho = \frac{\sum_i (r_i - \bar r)(s_i - \bar s)}{\sqrt{\sum_i (r_i - \bar r)^2 \sum_i (s_i - \bar s)^2}}, \quad
 * \tau_b = \frac{C - D}{\sqrt{(C + D + X)(C + D + Y)}} \]
 *
 * <p>with midranks \(r, s\); \(C\) concordant and \(D\) discordant pairs, \(X\) tied in x alone and \(Y\) in y alone.
 * Dimensionless, in [-1, 1]. Undefined below two pairs and where one of the two never changes. Cost O(n²) for τ-b.
 *
 * <p>Sources: C. Spearman (1904), The proof and measurement of association between two things, <i>American Journal of
 * Psychology</i> 15(1), 72-101, doi:10.2307/1412159; M. Kendall (1945), The treatment of ties in ranking problems,
 * <i>Biometrika</i> 33(3), 239-251, doi:10.1093/biomet/33.3.239.
 *
 * @param pairs things with both numbers
 * @param rho   Spearman's
 * @param tauB  Kendall's, corrected for ties
 */
public record RankCorrelation(int pairs, Estimate rho, Estimate tauB) {

    /** @throws IllegalArgumentException if the two are not equally long */
    public static RankCorrelation of(double[] x, double[] y) {
        Require.that(x.length == y.length, "y", "must be as long as x: " + x.length, y.length);
        if (x.length < 2) {
            return undefined(x.length, Reason.TOO_FEW_PAIRS);
        }
        Ranks r = Ranks.of(x);
        Ranks s = Ranks.of(y);
        double mean = (x.length + 1) / 2.0;
        double product = 0;
        double xSquares = 0;
        double ySquares = 0;
        double concordant = 0;
        double discordant = 0;
        double xTies = 0;
        double yTies = 0;
        for (int i = 0; i < x.length; i++) {
            product += (r.rank(i) - mean) * (s.rank(i) - mean);
            xSquares += (r.rank(i) - mean) * (r.rank(i) - mean);
            ySquares += (s.rank(i) - mean) * (s.rank(i) - mean);
            for (int j = 0; j < i; j++) {
                double a = Math.signum(r.rank(i) - r.rank(j));
                double b = Math.signum(s.rank(i) - s.rank(j));
                concordant += a * b > 0 ? 1 : 0;
                discordant += a * b < 0 ? 1 : 0;
                xTies += a == 0 && b != 0 ? 1 : 0;
                yTies += b == 0 && a != 0 ? 1 : 0;
            }
        }
        if (xSquares == 0 || ySquares == 0) {
            return undefined(x.length, Reason.CONSTANT);
        }
        double untied = concordant + discordant;
        return new RankCorrelation(
                x.length,
                Estimate.of(product / Math.sqrt(xSquares * ySquares)),
                Estimate.of((concordant - discordant) / Math.sqrt((untied + xTies) * (untied + yTies))));
    }

    private static RankCorrelation undefined(int pairs, Reason reason) {
        Estimate none = Estimate.undefined(reason);
        return new RankCorrelation(pairs, none, none);
    }
}
