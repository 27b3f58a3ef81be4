package org.mossbank.core.comparison;

/** What raters add to a model of groups (prompts, or kinds): the normal equations with the groups swept out. */
final class SweptRaters {
    final RankedCholesky matrix;
    final double trace;
    /** Squares left within groups, and how much of them raters explain. */
    final double within;

    final double explained;

    SweptRaters(CrossedLayout layout, int[] groupOf, int groups) {
        int[] size = new int[groups];
        double[] mean = new double[groups];
        int[][] of = new int[groups][layout.raters];
        for (int i = 0; i < layout.cells(); i++) {
            int g = groupOf[i];
            size[g]++;
            of[g][layout.raterOf[i]]++;
            mean[g] += layout.value[i];
        }
        for (int g = 0; g < groups; g++) {
            mean[g] /= size[g];
        }
        double[] side = new double[layout.raters];
        double squares = 0;
        for (int i = 0; i < layout.cells(); i++) {
            double off = layout.value[i] - mean[groupOf[i]];
            squares += off * off;
            side[layout.raterOf[i]] += off;
        }
        double[][] c = new double[layout.raters][layout.raters];
        for (int g = 0; g < groups; g++) {
            for (int r = 0; r < layout.raters; r++) {
                c[r][r] += of[g][r];
                for (int s = 0; s < layout.raters; s++) {
                    c[r][s] -= of[g][r] * (double) of[g][s] / size[g];
                }
            }
        }
        double sum = 0;
        for (int r = 0; r < layout.raters; r++) {
            sum += c[r][r];
        }
        trace = sum;
        matrix = RankedCholesky.of(c);
        within = squares;
        explained = matrix.squaredNorm(side);
    }
}
