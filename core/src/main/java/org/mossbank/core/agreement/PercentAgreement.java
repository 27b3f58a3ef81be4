package org.mossbank.core.agreement;

import java.util.Arrays;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.Require;

/**
 * Share of pairs of grades of one unit that lie no further apart than a number of levels. Proportions in [0, 1]; not
 * corrected for chance. Undefined if no unit has two grades.
 *
 * <p>For unit u with m_u grades, of whose pairs a_u agree: \[ \frac{1}{U} \sum_u a_u / \binom{m_u}{2} \] is the mean over units,
 * \[ \sum_u a_u / \sum_u \binom{m_u}{2} \] is pooled. Cost: linear in the pairs.
 *
 * @param unitMean      mean over units with two grades or more of the unit's share of agreeing pairs
 * @param pooled        agreeing pairs over all pairs
 * @param raterPairMean mean over pairs of raters with a common unit of their share
 * @param pairs         how many pairs of grades counted
 * @param units         how many units had at least one pair
 */
public record PercentAgreement(Estimate unitMean, Estimate pooled, Estimate raterPairMean, int pairs, int units) {

    /**
     * @param within the greatest distance in levels that counts as agreement: 0 for exact
     * @throws IllegalArgumentException if the distance is negative
     */
    public static PercentAgreement of(RatingMatrix matrix, int within) {
        Require.atLeast("within", 0, within);
        int raters = matrix.raters().size();
        Tally all = new Tally();
        int units = 0;
        double unitShares = 0;
        Tally[] byPair = new Tally[raters * raters];
        for (int u = 0; u < matrix.units().size(); u++) {
            Tally unit = new Tally();
            for (int i = 0; i < raters; i++) {
                for (int j = i + 1; j < raters; j++) {
                    if (matrix.isGraded(u, i) && matrix.isGraded(u, j)) {
                        boolean agree = matrix.distance(u, i, j) <= within;
                        unit.count(agree);
                        all.count(agree);
                        byPair[i * raters + j] = tallied(byPair[i * raters + j], agree);
                    }
                }
            }
            if (unit.pairs > 0) {
                units++;
                unitShares += unit.share();
            }
        }
        if (all.pairs == 0) {
            Estimate none = Estimate.undefined(Reason.NO_PAIRS);
            return new PercentAgreement(none, none, none, 0, 0);
        }
        double pairMean = Arrays.stream(byPair)
                .filter(Objects::nonNull)
                .mapToDouble(Tally::share)
                .average()
                .orElseThrow();
        return new PercentAgreement(
                Estimate.of(unitShares / units), Estimate.of(all.share()), Estimate.of(pairMean), all.pairs, units);
    }

    private static Tally tallied(@Nullable Tally before, boolean agree) {
        Tally tally = before == null ? new Tally() : before;
        tally.count(agree);
        return tally;
    }

    private static final class Tally {
        private int pairs;
        private int agreeing;

        private void count(boolean agree) {
            pairs++;
            agreeing += agree ? 1 : 0;
        }

        private double share() {
            return (double) agreeing / pairs;
        }
    }
}
