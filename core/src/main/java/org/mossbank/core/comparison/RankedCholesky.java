package org.mossbank.core.comparison;

/**
 * A symmetric positive semi-definite matrix as a product of a lower triangle with itself, rows that hang on those before
 * them left out.
 *
 * <p>\[ A = L L^\top \text{ on the rows that are kept}, \quad b^\top A^- b = \lVert L^{-1} b \rVert^2 \] for any \(b\) in the
 * span of A, with \(A^-\) a generalized inverse. Cost O(n³) to make, O(n²) a vector.
 *
 * <p>Source: G. Golub and C. Van Loan (2013), <i>Matrix Computations</i>, 4th ed., sec. 4.2.8.
 */
final class RankedCholesky {
    /** A pivot below this share of its first value hangs on the rows before it. */
    private static final double RANK_TOLERANCE = 1e-10;

    private final double[][] lower;
    private final boolean[] kept;
    private final int rank;

    private RankedCholesky(double[][] lower, boolean[] kept, int rank) {
        this.lower = lower;
        this.kept = kept;
        this.rank = rank;
    }

    static RankedCholesky of(double[][] a) {
        int n = a.length;
        double[][] l = new double[n][n];
        boolean[] kept = new boolean[n];
        int rank = 0;
        for (int j = 0; j < n; j++) {
            double pivot = a[j][j];
            for (int k = 0; k < j; k++) {
                pivot -= l[j][k] * l[j][k];
            }
            if (!(pivot > RANK_TOLERANCE * a[j][j])) {
                continue;
            }
            kept[j] = true;
            rank++;
            l[j][j] = Math.sqrt(pivot);
            for (int i = j + 1; i < n; i++) {
                double sum = a[i][j];
                for (int k = 0; k < j; k++) {
                    sum -= l[i][k] * l[j][k];
                }
                l[i][j] = sum / l[j][j];
            }
        }
        return new RankedCholesky(l, kept, rank);
    }

    int size() {
        return kept.length;
    }

    int rank() {
        return rank;
    }

    /**
     * \( \mathrm{tr}(A^- S) \) for a symmetric S in the span of the matrix: with \(A^- = B^\top B\), \(B = L^{-1}\) on the rows that
     * are kept, it is \( \sum_i b_i^\top S b_i \) over the rows of B.
     *
     * @param s its lower triangle alone is read
     */
    double traceWithInverse(double[][] s) {
        int n = kept.length;
        double[][] inverse = new double[n][n];
        double trace = 0;
        for (int i = 0; i < n; i++) {
            if (!kept[i]) {
                continue;
            }
            double[] row = inverse[i];
            row[i] = 1 / lower[i][i];
            for (int k = 0; k < i; k++) {
                if (kept[k]) {
                    double factor = lower[i][k] / lower[i][i];
                    for (int j = 0; j <= k; j++) {
                        row[j] -= factor * inverse[k][j];
                    }
                }
            }
            for (int a = 0; a <= i; a++) {
                trace += row[a] * row[a] * s[a][a];
                for (int b = 0; b < a; b++) {
                    trace += 2 * row[a] * row[b] * s[a][b];
                }
            }
        }
        return trace;
    }

    /** \( b^\top A^- b \), for b in the span of the matrix. */
    double squaredNorm(double[] b) {
        double[] y = new double[b.length];
        double norm = 0;
        for (int i = 0; i < b.length; i++) {
            if (!kept[i]) {
                continue;
            }
            double sum = b[i];
            for (int k = 0; k < i; k++) {
                sum -= lower[i][k] * y[k];
            }
            y[i] = sum / lower[i][i];
            norm += y[i] * y[i];
        }
        return norm;
    }
}
