package org.mossbank.core.agreement;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Jackknife;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.Student;

/**
 * Gwet's AC2 (AC1 when only the same level agrees): how far raters agree beyond what guessing makes likely. It stays
 * steady where almost all grades are alike and alpha collapses.
 *
 * <p>\[ \gamma = (p_a - p_e) / (1 - p_e), \quad p_a = \frac{1}{n'} \sum_{u: m_u \ge 2} \sum_k
 * \frac{r_{uk} (r^*_{uk} - 1)}{m_u (m_u - 1)}, \quad p_e = \frac{T_w}{q (q - 1)} \sum_k \pi_k (1 - \pi_k) \]
 *
 * <p>with \(r^*_{uk} = \sum_l w_{kl} r_{ul}\), \(\pi_k\) the mean over the \(n\) graded units of \(r_{uk} / m_u\), and
 * \(T_w\) the sum of all weights. Declared levels count, used or not.
 *
 * <p>Input: units × raters, with gaps. At most 1; 0 is chance level. Undefined when no unit has two grades, or the scale
 * has one level. Cost O(units × levels²).
 *
 * <p>Sources: K. Gwet (2008), Computing inter-rater reliability and its variance in the presence of high agreement,
 * <i>British Journal of Mathematical and Statistical Psychology</i> 61, 29-48, doi:10.1348/000711006X126600; K. Gwet
 * (2014), <i>Handbook of Inter-Rater Reliability</i>, 4th ed., ch. 5.
 */
public final class GwetCoefficient {
    private static final double LEVEL = 0.95;

    private final AgreementWeights weights;
    private final List<Unit> units;
    private final List<Sums> clusters;

    private GwetCoefficient(AgreementWeights weights, List<Unit> units, List<Sums> clusters) {
        this.weights = weights;
        this.units = units;
        this.clusters = clusters;
    }

    /** Intervals leave out single units. */
    public static GwetCoefficient of(RatingMatrix matrix, AgreementWeights weights) {
        return of(matrix, weights, UnaryOperator.identity());
    }

    /** @param clusterOfUnit what is left out together, for each unit */
    public static GwetCoefficient of(
            RatingMatrix matrix, AgreementWeights weights, UnaryOperator<String> clusterOfUnit) {
        List<Unit> units = new ArrayList<>();
        Map<String, Sums> clusters = new LinkedHashMap<>();
        for (int u = 0; u < matrix.units().size(); u++) {
            Unit unit = Unit.of(matrix.counts(u), weights);
            units.add(unit);
            clusters.computeIfAbsent(clusterOfUnit.apply(matrix.units().get(u)), c -> new Sums(weights.levels()))
                    .add(unit);
        }
        return new GwetCoefficient(weights, units, List.copyOf(clusters.values()));
    }

    /** One unit: its share of agreeing pairs (meaningless below two grades), and its share of each level. */
    private record Unit(boolean paired, double agreement, double[] shares) {
        static Unit of(int[] counts, AgreementWeights weights) {
            int grades = java.util.Arrays.stream(counts).sum();
            double agreeing = 0;
            double[] shares = new double[counts.length];
            for (int k = 0; k < counts.length; k++) {
                shares[k] = (double) counts[k] / grades;
                double weighted = 0;
                for (int l = 0; l < counts.length; l++) {
                    weighted += weights.weight(k, l) * counts[l];
                }
                agreeing += counts[k] * (weighted - 1);
            }
            boolean paired = grades >= 2;
            return new Unit(paired, paired ? agreeing / (grades * (grades - 1.0)) : 0, shares);
        }
    }

    /** What several units add up to. */
    private static final class Sums {
        private final double[] shares;
        private double agreement;
        private int paired;
        private int units;

        Sums(int levels) {
            this.shares = new double[levels];
        }

        void add(Unit unit) {
            units++;
            paired += unit.paired ? 1 : 0;
            agreement += unit.agreement;
            for (int k = 0; k < shares.length; k++) {
                shares[k] += unit.shares[k];
            }
        }

        void add(Sums other) {
            add(other, 1);
        }

        void subtract(Sums other) {
            add(other, -1);
        }

        private void add(Sums other, int sign) {
            units += sign * other.units;
            paired += sign * other.paired;
            agreement += sign * other.agreement;
            for (int k = 0; k < shares.length; k++) {
                shares[k] += sign * other.shares[k];
            }
        }
    }

    private Sums all() {
        Sums all = new Sums(weights.levels());
        clusters.forEach(all::add);
        return all;
    }

    private Estimate ifDefined(Sums sums, double number) {
        if (sums.paired == 0) {
            return Estimate.undefined(Reason.NO_PAIRS);
        }
        return weights.levels() == 1 ? Estimate.undefined(Reason.ONE_LEVEL_ONLY) : Estimate.of(number);
    }

    private static double agreementOf(Sums sums) {
        return sums.agreement / sums.paired;
    }

    /** The weight that a share of a level has in chance agreement. */
    private double chanceFactor() {
        int q = weights.levels();
        return weights.sum() / (q * (q - 1.0));
    }

    private double chanceOf(Sums sums) {
        double sum = 0;
        for (double share : sums.shares) {
            double mean = share / sums.units;
            sum += mean * (1 - mean);
        }
        return chanceFactor() * sum;
    }

    private double coefficientOf(Sums sums) {
        double chance = chanceOf(sums);
        return (agreementOf(sums) - chance) / (1 - chance);
    }

    /** p_a, in [0, 1]. */
    public Estimate observed() {
        Sums all = all();
        return ifDefined(all, agreementOf(all));
    }

    /** p_e, in [0, 1]. */
    public Estimate chance() {
        Sums all = all();
        return ifDefined(all, chanceOf(all));
    }

    /** The coefficient. */
    public Estimate value() {
        Sums all = all();
        return ifDefined(all, coefficientOf(all));
    }

    /** Standard error over units; undefined with one unit. */
    public Estimate standardError() {
        int n = units.size();
        Estimate value = value();
        if (value instanceof Estimate.Undefined || n < 2) {
            return value instanceof Estimate.Undefined ? value : Estimate.undefined(Reason.TOO_FEW_TO_RESAMPLE);
        }
        double coefficient = value.value().orElseThrow();
        Sums all = all();
        double chance = chanceOf(all);
        double squares = 0;
        for (Unit unit : units) {
            double own = unit.paired ? (double) n / all.paired * (unit.agreement - chance) / (1 - chance) : 0;
            double ownChance = 0;
            for (int k = 0; k < unit.shares.length; k++) {
                ownChance += unit.shares[k] * (1 - all.shares[k] / n);
            }
            double shift = 2 * (1 - coefficient) * (chanceFactor() * ownChance - chance) / (1 - chance);
            squares += (own - shift - coefficient) * (own - shift - coefficient);
        }
        return Estimate.of(Math.sqrt(squares / (n * (n - 1.0))));
    }

    /** The analytic 95 % interval by Student's t with n - 1 degrees of freedom; not clipped to 1. */
    public Interval interval() {
        Estimate error = standardError();
        if (error instanceof Estimate.Undefined none) {
            return Interval.undefined(none.reason());
        }
        double half = Student.of(units.size() - 1.0).quantile((1 + LEVEL) / 2)
                * error.value().orElseThrow();
        double center = value().value().orElseThrow();
        return new Interval.Bounds(center - half, center + half, LEVEL);
    }

    /** For these raters over other clusters; see {@link Jackknife}. Cost O(clusters × levels²). */
    public Interval jackknife(double level) {
        Sums all = all();
        double[] without = new double[clusters.size()];
        for (int i = 0; i < without.length; i++) {
            Sums rest = new Sums(weights.levels());
            rest.add(all);
            rest.subtract(clusters.get(i));
            without[i] = ifDefined(rest, coefficientOf(rest)).value().orElse(Double.NaN);
        }
        return Jackknife.ofAgreement(value(), without, level);
    }

    /** Number of clusters. */
    public int clusterCount() {
        return clusters.size();
    }
}
