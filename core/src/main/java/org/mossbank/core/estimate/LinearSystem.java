package org.mossbank.core.estimate;

import java.util.Optional;

/**
 * Small symmetric systems of normal equations, solved thousands of times in resampling.
 *
 * <p>\[ A x = b, \quad A = A^\top \succeq 0 \] by elimination without exchange of rows, which is stable for such matrices
 * (G. Golub and C. Van Loan (2013), <i>Matrix Computations</i>, 4th ed., sec. 4.2). Rank deficient where a pivot falls
 * below a share of its first value.
 */
public final class LinearSystem {
    private LinearSystem() {}

    /** A pivot below this share of its diagonal's first value means that the rank is deficient. */
    private static final double RANK_TOLERANCE = 1e-9;

    /** The same with each pivot held against the diagonal as it is given. */
    public static Optional<double[]> solveInPlace(double[][] a, double[] b) {
        double[] scale = new double[b.length];
        for (int i = 0; i < b.length; i++) {
            scale[i] = a[i][i];
        }
        return solveInPlace(a, b, scale);
    }

    /**
     * Solves {@code A x = b} by an LDL' factorisation without pivoting.
     *
     * <p>A library's decomposition copies and allocates; here the matrices are tiny (tens of rows) and solved once a
     * resample. Overwrites both arguments. Cost O(n³).
     *
     * @param a     symmetric positive semi-definite, n x n; its upper triangle alone is read
     * @param b     right side, length n
     * @param scale what each pivot is held against, length n: the diagonal, before anything was taken from it
     * @return the solution, or empty if the matrix is rank deficient
     */
    public static Optional<double[]> solveInPlace(double[][] a, double[] b, double[] scale) {
        int n = b.length;
        for (int j = 0; j < n; j++) {
            if (!(a[j][j] > RANK_TOLERANCE * Math.max(scale[j], Double.MIN_NORMAL))) {
                return Optional.empty();
            }
            double[] row = a[j];
            for (int i = j + 1; i < n; i++) {
                // By symmetry the upper triangle holds what the lower one would.
                double factor = row[i] / row[j];
                if (factor != 0) {
                    double[] below = a[i];
                    for (int k = i; k < n; k++) {
                        below[k] -= factor * row[k];
                    }
                    b[i] -= factor * b[j];
                }
            }
        }
        for (int i = n - 1; i >= 0; i--) {
            for (int k = i + 1; k < n; k++) {
                b[i] -= a[i][k] * b[k];
            }
            b[i] /= a[i][i];
        }
        return Optional.of(b);
    }
}
