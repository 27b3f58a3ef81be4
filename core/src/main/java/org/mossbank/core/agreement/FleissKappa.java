package org.mossbank.core.agreement;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;

/**
 * Fleiss' kappa: how far any number of raters agree exactly, beyond what the shares of the levels make likely.
 *
 * <p>\[ \bar P = \frac{1}{N} \sum_u \frac{\sum_c n_{uc}(n_{uc} - 1)}{m(m - 1)}, \quad \bar P_e = \sum_c p_c^2, \quad
 * \kappa = \frac{\bar P - \bar P_e}{1 - \bar P_e} \]
 *
 * <p>with \(n_{uc}\) of the \(m\) grades of unit \(u\) at level \(c\) and \(p_c\) the level's share of all. For one level,
 * \( \kappa_c = 1 - \sum_u n_{uc}(m - n_{uc}) / (N m (m - 1) p_c (1 - p_c)) \).
 *
 * <p>Dimensionless, at most 1; 0 is chance level. Undefined where units have unequal numbers of grades or one each, and where
 * one level alone was given; a level's kappa also where it was never given. Standard errors are those under a true kappa of 0.
 *
 * <p>Sources: J. Fleiss (1971), Measuring nominal scale agreement among many raters, <i>Psychological Bulletin</i> 76(5),
 * 378-382, doi:10.1037/h0031619; J. Fleiss, J. Nee and J. Landis (1979), Large sample variance of kappa in the case of
 * different sets of raters, <i>Psychological Bulletin</i> 86(5), 974-977, doi:10.1037/0033-2909.86.5.974.
 *
 * @param units                         units with a grade
 * @param observed                      mean share of agreeing pairs
 * @param chance                        the same if grades fell by their shares alone
 * @param kappa                         the coefficient
 * @param standardErrorIfChance         of the coefficient
 * @param byLevel                       each level's own kappa, in the order of the scale
 * @param levelStandardErrorIfChance    of each level's own
 * @param generalized                   for unequal numbers: the mean over units with two grades or more of their agreeing
 *                                      pairs, against shares that are means over units
 */
public record FleissKappa(
        int units,
        Estimate observed,
        Estimate chance,
        Estimate kappa,
        Estimate standardErrorIfChance,
        List<Estimate> byLevel,
        Estimate levelStandardErrorIfChance,
        Estimate generalized) {
    public FleissKappa {
        byLevel = List.copyOf(byLevel);
    }

    public static FleissKappa of(RatingMatrix matrix) {
        List<int[]> counts = IntStream.range(0, matrix.units().size())
                .mapToObj(matrix::counts)
                .toList();
        return of(counts, matrix.levels());
    }

    /** The same of the units that every rater graded. */
    public static FleissKappa ofCompleteUnits(RatingMatrix matrix) {
        List<int[]> counts = IntStream.range(0, matrix.units().size())
                .mapToObj(matrix::counts)
                .filter(unit -> grades(unit) == matrix.raters().size())
                .toList();
        return of(counts, matrix.levels());
    }

    private static int grades(int[] unit) {
        return IntStream.of(unit).sum();
    }

    private static FleissKappa of(List<int[]> units, int levels) {
        Estimate generalized = generalized(units, levels);
        int m = units.isEmpty() ? 0 : grades(units.get(0));
        if (m < 2 || units.stream().anyMatch(u -> grades(u) != m)) {
            Estimate none = Estimate.undefined(m < 2 ? Reason.NO_PAIRS : Reason.UNEQUAL_NUMBERS);
            List<Estimate> noLevel = java.util.Collections.nCopies(levels, none);
            return new FleissKappa(units.size(), none, none, none, none, noLevel, none, generalized);
        }
        double pairs = units.size() * (double) m * (m - 1);
        double agreeing = 0;
        double[] share = new double[levels];
        double[] disagreeing = new double[levels];
        for (int[] unit : units) {
            for (int c = 0; c < levels; c++) {
                agreeing += (double) unit[c] * (unit[c] - 1);
                disagreeing[c] += (double) unit[c] * (m - unit[c]);
                share[c] += unit[c];
            }
        }
        double chance = 0;
        double spread = 0; // Σ p q
        double skew = 0; // Σ p q (q - p)
        List<Estimate> byLevel = new ArrayList<>();
        for (int c = 0; c < levels; c++) {
            boolean alone = share[c] == 0 || share[c] == units.size() * (double) m;
            share[c] /= units.size() * (double) m;
            double p = share[c];
            double q = 1 - p;
            chance += p * p;
            spread += p * q;
            skew += p * q * (q - p);
            byLevel.add(
                    alone
                            ? Estimate.undefined(Reason.LEVEL_NOT_USED)
                            : Estimate.of(1 - disagreeing[c] / (pairs * p * q)));
        }
        double observed = agreeing / pairs;
        boolean single = byLevel.stream().allMatch(Estimate.Undefined.class::isInstance);
        Estimate none = Estimate.undefined(Reason.ONE_LEVEL_ONLY);
        // Fleiss, Nee and Landis (1979), eq. 12; rounding may leave a variance of zero a hair below it.
        double variance = Math.max(0, 2 * (spread * spread - skew) / (pairs * spread * spread));
        return new FleissKappa(
                units.size(),
                Estimate.of(observed),
                Estimate.of(chance),
                single ? none : Estimate.of((observed - chance) / spread),
                single ? none : Estimate.of(Math.sqrt(variance)),
                byLevel,
                Estimate.of(Math.sqrt(2 / pairs)),
                generalized);
    }

    private static Estimate generalized(List<int[]> units, int levels) {
        double[] share = new double[levels];
        double observed = 0;
        int paired = 0;
        for (int[] unit : units) {
            int m = grades(unit);
            double agreeing = 0;
            for (int c = 0; c < levels; c++) {
                share[c] += (double) unit[c] / m / units.size();
                agreeing += (double) unit[c] * (unit[c] - 1);
            }
            if (m >= 2) {
                observed += agreeing / ((double) m * (m - 1));
                paired++;
            }
        }
        if (paired == 0) {
            return Estimate.undefined(Reason.NO_PAIRS);
        }
        long used = java.util.stream.DoubleStream.of(share).filter(p -> p > 0).count();
        double chance = java.util.stream.DoubleStream.of(share).map(p -> p * p).sum();
        return used < 2
                ? Estimate.undefined(Reason.ONE_LEVEL_ONLY)
                : Estimate.of((observed / paired - chance) / (1 - chance));
    }
}
