package org.mossbank.core.agreement;

import java.util.List;
import java.util.OptionalInt;
import java.util.stream.IntStream;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.ranking.Friedman;

/**
 * Kendall's coefficient of concordance W: how far raters put the same units in the same order.
 *
 * <p>\[ W = \frac{12 \sum_u (R_u - \bar R)^2}{m^2 (n^3 - n) - m \sum (t^3 - t)}, \quad \chi^2 = m (n - 1) W \]
 *
 * <p>with \(R_u\) the sum of a unit's midranks over \(m\) raters, \(n\) complete units and \(t\) the sizes of a rater's groups of
 * equal scores. Dimensionless, in [0, 1]; 1 is one and the same order. Undefined below two complete units, and if every rater
 * ties all units.
 *
 * <p>Source: M. Kendall and B. Babington Smith (1939), The problem of m rankings, <i>Annals of Mathematical Statistics</i>
 * 10(3), 275-287, doi:10.1214/aoms/1177732186; ties: M. Kendall (1948), <i>Rank Correlation Methods</i>, ch. 6.
 *
 * @param units      complete units, n
 * @param raters     m
 * @param w          the coefficient
 * @param chiSquared m (n - 1) W
 * @param freedom    n - 1; absent below two units
 * @param p          upper tail of chi-squared
 */
public record Concordance(int units, int raters, Estimate w, Estimate chiSquared, OptionalInt freedom, Estimate p) {

    public static Concordance of(ScoreTable table) {
        int n = table.units();
        int m = table.raters().size();
        if (n < 2) {
            Estimate none = Estimate.undefined(Reason.TOO_FEW_COMPLETE);
            return new Concordance(n, m, none, none, OptionalInt.empty(), none);
        }
        List<double[]> orders = IntStream.range(0, m).mapToObj(table::column).toList();
        Friedman friedman = Friedman.of(orders);
        return new Concordance(
                n, m, friedman.concordance(), friedman.chiSquared(), OptionalInt.of(n - 1), friedman.p());
    }
}
