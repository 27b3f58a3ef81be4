package org.mossbank.core.ranking;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.hipparchus.linear.LUDecomposition;
import org.hipparchus.linear.MatrixUtils;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;

/**
 * Abilities from comparisons of two, by maximum likelihood: without ties those of Bradley and Terry, with ties those of
 * Davidson.
 *
 * <p>\[ P(i \text{ wins}) = p_i / D, \quad P(\text{tie}) = \nu \sqrt{p_i p_j} / D, \quad D = p_i + p_j + \nu \sqrt{p_i p_j} \]
 *
 * <p>With \(\nu = 0\) it is \( p_i / (p_i + p_j) \). Log abilities \(\log p_i\) are centred on 0; strengths \(p_i\) sum to 1.
 * Both dimensionless. Undefined where the likelihood has no finite maximum: where things fall into two groups of which one
 * never lost to, or never met, the other (Ford 1957), and, with ties, where they and the tie rate can grow together.
 * Newton's method on the log likelihood, which is concave in log abilities and \(\log \nu\).
 *
 * <p>Sources: R. Bradley and M. Terry (1952), Rank analysis of incomplete block designs, <i>Biometrika</i> 39, 324-345,
 * doi:10.1093/biomet/39.3-4.324; L. Ford (1957), Solution of a ranking problem from binary comparisons, <i>American
 * Mathematical Monthly</i> 64(8), 28-33, doi:10.1080/00029890.1957.11989117; R. Davidson (1970), On extending the
 * Bradley-Terry model to accommodate ties, <i>JASA</i> 65(329), 317-328, doi:10.1080/01621459.1970.10481082; D. Hunter (2004),
 * MM algorithms for generalized Bradley-Terry models, <i>Annals of Statistics</i> 32(1), 384-406, doi:10.1214/aos/1079120141.
 *
 * @param logAbilities  by item, in alphabetical order, with mean 0
 * @param strengths     by item, with sum 1
 * @param tieRate       ν; 0 without ties
 * @param logLikelihood sum of counts times log probabilities
 */
public record Abilities(
        Map<String, Estimate> logAbilities, Map<String, Estimate> strengths, Estimate tieRate, Estimate logLikelihood) {
    private static final int MOST_STEPS = 500;
    private static final int MOST_HALVINGS = 60;
    private static final double PRECISION = 1e-11;

    /** Ties are left out. */
    public static Abilities withoutTies(PairedComparisons comparisons) {
        PairedComparisons decided = comparisons.decided();
        return decided.isStronglyConnected() && decided.size() > 0
                ? new Fit(decided, false).abilities()
                : undefined(decided.items());
    }

    public static Abilities withTies(PairedComparisons comparisons) {
        if (!comparisons.hasTies()) {
            return withoutTies(comparisons);
        }
        return comparisons.isStronglyConnected() && !comparisons.growsWithTies()
                ? new Fit(comparisons, true).abilities()
                : undefined(comparisons.items());
    }

    private static Abilities undefined(List<String> items) {
        Estimate none = Estimate.undefined(Reason.NO_FINITE_MAXIMUM);
        Map<String, Estimate> all = new LinkedHashMap<>();
        items.forEach(i -> all.put(i, none));
        return new Abilities(all, all, none, none);
    }

    /** The parameters are log abilities, and the log of the tie rate last where there are ties. */
    private static final class Fit {
        private final PairedComparisons data;
        private final boolean hasTies;
        private final int n;

        Fit(PairedComparisons data, boolean hasTies) {
            this.data = data;
            this.hasTies = hasTies;
            this.n = data.size();
        }

        Abilities abilities() {
            double[] at = new double[hasTies ? n + 1 : n];
            double value = logLikelihood(at);
            for (int step = 0; step < MOST_STEPS; step++) {
                double[] direction = newtonStep(at);
                double factor = 1;
                double[] next = moved(at, direction, factor);
                double reached = logLikelihood(next);
                for (int half = 0; half < MOST_HALVINGS && !(reached >= value); half++) {
                    factor /= 2;
                    next = moved(at, direction, factor);
                    reached = logLikelihood(next);
                }
                if (!(reached >= value)) {
                    break;
                }
                at = next;
                value = reached;
                if (Arrays.stream(direction).allMatch(d -> Math.abs(d) < PRECISION)) {
                    break;
                }
            }
            return told(at, value);
        }

        private Abilities told(double[] at, double value) {
            double mean = Arrays.stream(at, 0, n).average().orElse(0);
            double highest = Arrays.stream(at, 0, n).max().orElse(0);
            double sum = Arrays.stream(at, 0, n).map(a -> Math.exp(a - highest)).sum();
            Map<String, Estimate> logs = new LinkedHashMap<>();
            Map<String, Estimate> strengths = new LinkedHashMap<>();
            for (int i = 0; i < n; i++) {
                logs.put(data.items().get(i), Estimate.of(at[i] - mean));
                strengths.put(data.items().get(i), Estimate.of(Math.exp(at[i] - highest) / sum));
            }
            return new Abilities(logs, strengths, Estimate.of(hasTies ? Math.exp(at[n]) : 0), Estimate.of(value));
        }

        private static double[] moved(double[] at, double[] direction, double factor) {
            double[] next = at.clone();
            for (int i = 0; i < next.length; i++) {
                next[i] += factor * direction[i];
            }
            return next;
        }

        /** Log probabilities of the first winning, the second, and a tie. */
        private double[] logProbabilities(double[] at, int i, int j) {
            double tie = hasTies ? at[n] + (at[i] + at[j]) / 2 : Double.NEGATIVE_INFINITY;
            double highest = Math.max(Math.max(at[i], at[j]), tie);
            double log =
                    highest + Math.log(Math.exp(at[i] - highest) + Math.exp(at[j] - highest) + Math.exp(tie - highest));
            return new double[] {at[i] - log, at[j] - log, tie - log};
        }

        private double logLikelihood(double[] at) {
            double sum = 0;
            for (int i = 0; i < n; i++) {
                for (int j = 0; j < i; j++) {
                    double[] log = logProbabilities(at, i, j);
                    sum += data.wins(i, j) * log[0] + data.wins(j, i) * log[1];
                    if (data.ties(i, j) > 0) {
                        sum += data.ties(i, j) * log[2];
                    }
                }
            }
            return sum;
        }

        /**
         * Gradient over curvature. Each pair is a draw from three outcomes with statistics (1, 0, 0), (0, 1, 0) and
         * (½, ½, 1) of its two abilities and the tie rate: the gradient is counted less expected, the curvature the
         * covariance.
         */
        private double[] newtonStep(double[] at) {
            double[][] statistics = {{1, 0, 0}, {0, 1, 0}, {0.5, 0.5, 1}};
            double[] gradient = new double[at.length];
            double[][] curvature = new double[at.length][at.length];
            for (int i = 0; i < n; i++) {
                for (int j = 0; j < i; j++) {
                    double[] counts = {data.wins(i, j), data.wins(j, i), data.ties(i, j)};
                    double all = counts[0] + counts[1] + counts[2];
                    if (all > 0) {
                        add(at, new int[] {i, j, n}, counts, all, statistics, gradient, curvature);
                    }
                }
            }
            // Abilities are known up to a constant: a curvature along it holds the step's sum at 0.
            for (int i = 0; i < n; i++) {
                for (int j = 0; j < n; j++) {
                    curvature[i][j] += 1.0 / n;
                }
            }
            return new LUDecomposition(MatrixUtils.createRealMatrix(curvature), 0)
                    .getSolver()
                    .solve(MatrixUtils.createRealVector(gradient))
                    .toArray();
        }

        private void add(
                double[] at,
                int[] of,
                double[] counts,
                double all,
                double[][] statistics,
                double[] gradient,
                double[][] curvature) {
            double[] log = logProbabilities(at, of[0], of[1]);
            int parameters = hasTies ? 3 : 2;
            double[] mean = new double[parameters];
            for (int outcome = 0; outcome < 3; outcome++) {
                for (int a = 0; a < parameters; a++) {
                    mean[a] += Math.exp(log[outcome]) * statistics[outcome][a];
                }
            }
            for (int outcome = 0; outcome < 3; outcome++) {
                double p = Math.exp(log[outcome]);
                for (int a = 0; a < parameters; a++) {
                    gradient[of[a]] += (counts[outcome] - all * p) * statistics[outcome][a];
                    for (int b = 0; b < parameters; b++) {
                        curvature[of[a]][of[b]] +=
                                all * p * (statistics[outcome][a] - mean[a]) * (statistics[outcome][b] - mean[b]);
                    }
                }
            }
        }
    }
}
