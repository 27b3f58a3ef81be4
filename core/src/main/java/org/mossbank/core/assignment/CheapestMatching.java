package org.mossbank.core.assignment;

import java.util.Arrays;

/**
 * The cheapest one-to-one assignment of rows to columns, by shortest augmenting paths with potentials.
 *
 * <p>Source: H. Kuhn (1955), The Hungarian method for the assignment problem, <i>Naval Research Logistics Quarterly</i>
 * 2, 83-97, doi:10.1002/nav.3800020109; in the O(n³) form of J. Edmonds and R. Karp (1972). Kept here because the
 * libraries in use have none.
 */
final class CheapestMatching {
    private final double[][] cost;
    private final double[] rowPotential;
    private final double[] columnPotential;
    private final int[] rowOf;

    private CheapestMatching(double[][] cost) {
        int n = cost.length;
        this.cost = cost;
        this.rowPotential = new double[n + 1];
        this.columnPotential = new double[n + 1];
        this.rowOf = new int[n + 1]; // column 0 is the start of a path, row 0 is nobody
    }

    /** @return for each row its column; {@code cost} is square */
    static int[] of(double[][] cost) {
        CheapestMatching matching = new CheapestMatching(cost);
        for (int row = 1; row <= cost.length; row++) {
            matching.add(row);
        }
        int[] columns = new int[cost.length];
        for (int column = 1; column <= cost.length; column++) {
            columns[matching.rowOf[column] - 1] = column - 1;
        }
        return columns;
    }

    private void add(int row) {
        int n = cost.length;
        double[] least = new double[n + 1];
        int[] previous = new int[n + 1];
        boolean[] reached = new boolean[n + 1];
        Arrays.fill(least, Double.POSITIVE_INFINITY);
        rowOf[0] = row;
        int column = 0;
        while (rowOf[column] != 0) {
            reached[column] = true;
            int next = 0;
            for (int j = 1; j <= n; j++) {
                if (!reached[j]) {
                    double reduced = cost[rowOf[column] - 1][j - 1] - rowPotential[rowOf[column]] - columnPotential[j];
                    if (reduced < least[j]) {
                        least[j] = reduced;
                        previous[j] = column;
                    }
                    if (next == 0 || least[j] < least[next]) {
                        next = j;
                    }
                }
            }
            shift(least, reached, least[next]);
            column = next;
        }
        while (column != 0) {
            rowOf[column] = rowOf[previous[column]];
            column = previous[column];
        }
    }

    private void shift(double[] least, boolean[] reached, double delta) {
        for (int j = 0; j < least.length; j++) {
            if (reached[j]) {
                rowPotential[rowOf[j]] += delta;
                columnPotential[j] -= delta;
            } else {
                least[j] -= delta;
            }
        }
    }
}
