package org.mossbank.core.agreement;

import org.mossbank.core.estimate.Require;

/**
 * How much two levels count as agreeing: 1 on the diagonal, less the further apart. Positions in the declared scale
 * count, not the numbers written on the levels.
 *
 * <p>For levels i and j of q, from 0: \[ w_{ij} = 1 - |i - j| / (q - 1) \] linear, \[ w_{ij} = 1 - (i - j)^2 / (q - 1)^2 \]
 * quadratic, \[ w_{ij} = 1 - \binom{|i - j| + 1}{2} / \binom{q}{2} \] ordinal. Dimensionless, in [0, 1]; with one level all
 * are 1.
 *
 * <p>Sources: J. Cohen (1968), Weighted kappa, <i>Psychological Bulletin</i> 70(4), 213-220, doi:10.1037/h0026256; K. Gwet
 * (2014), <i>Handbook of Inter-Rater Reliability</i>, 4th ed., ch. 3.
 */
public final class AgreementWeights {
    private final double[][] weights;

    private AgreementWeights(double[][] weights) {
        this.weights = weights;
    }

    private interface Rule {
        double weight(int i, int j);
    }

    private static AgreementWeights from(int levels, Rule rule) {
        Require.atLeast("levels", 1, levels);
        double[][] weights = new double[levels][levels];
        for (int i = 0; i < levels; i++) {
            for (int j = 0; j < levels; j++) {
                weights[i][j] = i == j ? 1 : rule.weight(i, j);
            }
        }
        return new AgreementWeights(weights);
    }

    /** Only the same level agrees. */
    public static AgreementWeights unweighted(int levels) {
        return from(levels, (i, j) -> 0);
    }

    /** w = 1 - |i - j| / (q - 1). */
    public static AgreementWeights linear(int levels) {
        return from(levels, (i, j) -> 1 - Math.abs(i - j) / (levels - 1.0));
    }

    /** w = 1 - (i - j)² / (q - 1)². */
    public static AgreementWeights quadratic(int levels) {
        return from(levels, (i, j) -> 1 - (double) (i - j) * (i - j) / ((levels - 1.0) * (levels - 1.0)));
    }

    /** w = 1 - C(|i - j| + 1, 2) / C(q, 2): levels in between count, not their distance (Gwet 2014, ch. 3). */
    public static AgreementWeights ordinal(int levels) {
        return from(levels, (i, j) -> {
            double between = Math.abs(i - j) + 1.0;
            return 1 - between * (between - 1) / (levels * (levels - 1.0));
        });
    }

    /**
     * Weights of one's own; rows belong to the first rater.
     *
     * @param table q × q, each in [0, 1]
     * @throws IllegalArgumentException if the table is not square or a weight is no proportion
     */
    public static AgreementWeights custom(double[][] table) {
        double[][] copy = new double[table.length][];
        for (int i = 0; i < table.length; i++) {
            Require.that(table[i].length == table.length, "table", "must be square", table[i].length);
            copy[i] = table[i].clone();
            for (double weight : copy[i]) {
                Require.proportion("weight", weight);
            }
        }
        return new AgreementWeights(copy);
    }

    int levels() {
        return weights.length;
    }

    double sum() {
        return java.util.Arrays.stream(weights)
                .flatMapToDouble(java.util.Arrays::stream)
                .sum();
    }

    double weight(int i, int j) {
        return weights[i][j];
    }
}
