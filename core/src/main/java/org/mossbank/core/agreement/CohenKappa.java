package org.mossbank.core.agreement;

import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.Require;

/**
 * Cohen's kappa, weighted or not: how far two raters agree beyond what their own shares of the levels make likely.
 *
 * <p>\[ \kappa = (p_o - p_e) / (1 - p_e), \quad p_o = \sum_{ij} w_{ij} p_{ij}, \quad p_e = \sum_{ij} w_{ij} p_{i+} p_{+j}
 * \]
 *
 * <p>Input: a matrix and two of its raters; units that lack either grade are left out. At most 1; 0 is chance level,
 * negative is worse. Undefined without a common unit, and when chance agreement is 1.
 *
 * <p>Source: J. Cohen (1968), Weighted kappa, <i>Psychological Bulletin</i> 70(4), 213-220, doi:10.1037/h0026256.
 * Standard errors: J. Fleiss, J. Cohen and B. Everitt (1969), Large sample standard errors of kappa and weighted kappa,
 * <i>Psychological Bulletin</i> 72(5), 323-327, doi:10.1037/h0028106.
 *
 * @param count                 units that both graded
 * @param observed              p_o
 * @param chance                p_e
 * @param kappa                 the coefficient
 * @param standardError         large-sample standard error
 * @param standardErrorIfChance the same if the true kappa were 0
 */
public record CohenKappa(
        int count,
        Estimate observed,
        Estimate chance,
        Estimate kappa,
        Estimate standardError,
        Estimate standardErrorIfChance) {

    /**
     * @param first  position of the first rater in {@link RatingMatrix#raters()}
     * @param second position of the second
     * @throws IllegalArgumentException if the weights are for another number of levels
     */
    public static CohenKappa of(RatingMatrix matrix, int first, int second, AgreementWeights weights) {
        int q = matrix.levels();
        int[][] counts = new int[q][q];
        for (int u = 0; u < matrix.units().size(); u++) {
            var a = matrix.category(u, first);
            var b = matrix.category(u, second);
            if (a.isPresent() && b.isPresent()) {
                counts[a.getAsInt()][b.getAsInt()]++;
            }
        }
        return ofCounts(counts, weights);
    }

    /**
     * @param counts units by the first rater's level, in rows, and the second's
     * @throws IllegalArgumentException if the weights are for another number of levels
     */
    public static CohenKappa ofCounts(int[][] counts, AgreementWeights weights) {
        int q = counts.length;
        Require.that(weights.levels() == q, "weights", "must be for " + q + " levels", weights.levels());
        double[][] share = new double[q][q];
        int n = 0;
        for (int i = 0; i < q; i++) {
            for (int j = 0; j < q; j++) {
                share[i][j] = counts[i][j];
                n += counts[i][j];
            }
        }
        if (n == 0) {
            Estimate none = Estimate.undefined(Reason.NO_PAIRS);
            return new CohenKappa(0, none, none, none, none, none);
        }
        return fromCounts(share, n, weights);
    }

    private static CohenKappa fromCounts(double[][] share, int n, AgreementWeights w) {
        int q = share.length;
        double[] row = new double[q];
        double[] column = new double[q];
        for (int i = 0; i < q; i++) {
            for (int j = 0; j < q; j++) {
                share[i][j] /= n;
                row[i] += share[i][j];
                column[j] += share[i][j];
            }
        }
        double po = 0;
        double pe = 0;
        double[] meanOfRow = new double[q]; // w̄_i. = Σ_j w_ij p_+j
        double[] meanOfColumn = new double[q]; // w̄_.j = Σ_i w_ij p_i+
        for (int i = 0; i < q; i++) {
            for (int j = 0; j < q; j++) {
                po += w.weight(i, j) * share[i][j];
                pe += w.weight(i, j) * row[i] * column[j];
                meanOfRow[i] += w.weight(i, j) * column[j];
                meanOfColumn[j] += w.weight(i, j) * row[i];
            }
        }
        if (chanceIsCertain(w, row, column)) {
            Estimate none = Estimate.undefined(Reason.ONE_LEVEL_ONLY);
            return new CohenKappa(n, Estimate.of(po), Estimate.of(pe), none, none, none);
        }
        double sum = 0;
        double sumIfChance = 0;
        for (int i = 0; i < q; i++) {
            for (int j = 0; j < q; j++) {
                double means = meanOfRow[i] + meanOfColumn[j];
                double term = w.weight(i, j) * (1 - pe) - means * (1 - po);
                double termIfChance = w.weight(i, j) - means;
                sum += share[i][j] * term * term;
                sumIfChance += row[i] * column[j] * termIfChance * termIfChance;
            }
        }
        double offset = po * pe - 2 * pe + po;
        double slack = 1 - pe;
        // Rounding may leave a variance of zero a hair below it.
        double variance = Math.max(0, sum - offset * offset) / (n * slack * slack * slack * slack); // eq. 8
        double varianceIfChance = Math.max(0, sumIfChance - pe * pe) / (n * slack * slack); // eq. 9
        return new CohenKappa(
                n,
                Estimate.of(po),
                Estimate.of(pe),
                Estimate.of((po - pe) / slack),
                Estimate.of(Math.sqrt(variance)),
                Estimate.of(Math.sqrt(varianceIfChance)));
    }

    /** Whether every combination of levels that the shares allow counts as full agreement; exact, unlike 1 - p_e == 0. */
    private static boolean chanceIsCertain(AgreementWeights w, double[] row, double[] column) {
        for (int i = 0; i < row.length; i++) {
            for (int j = 0; j < column.length; j++) {
                if (row[i] > 0 && column[j] > 0 && w.weight(i, j) < 1) {
                    return false;
                }
            }
        }
        return true;
    }
}
