package org.mossbank.core.comparison;

/** What raters add to a model of groups (prompts, or kinds): the normal equations with the groups swept out. */
final class SweptRaters {
    final RankedCholesky matrix;
    final double trace;

    private final int[] groupOf;
    private final int[] raterOf;
    private final int[] size;

    SweptRaters(CrossedPattern pattern, int[] groupOf, int groups) {
        this.groupOf = groupOf;
        this.raterOf = pattern.raterOf;
        this.size = new int[groups];
        int raters = pattern.raters;
        int[] of = new int[groups * raters];
        for (int i = 0; i < groupOf.length; i++) {
            size[groupOf[i]]++;
            of[groupOf[i] * raters + raterOf[i]]++;
        }
        double[][] c = new double[raters][raters];
        for (int g = 0; g < groups; g++) {
            for (int r = 0; r < raters; r++) {
                double here = of[g * raters + r];
                if (here == 0) {
                    continue;
                }
                c[r][r] += here;
                for (int s = 0; s < raters; s++) {
                    c[r][s] -= here * of[g * raters + s] / size[g];
                }
            }
        }
        double sum = 0;
        for (int r = 0; r < raters; r++) {
            sum += c[r][r];
        }
        trace = sum;
        matrix = RankedCholesky.of(c);
    }

    /**
     * @param within    squares left within groups
     * @param explained how much of them raters explain
     */
    record Squares(double within, double explained) {}

    Squares of(double[] values) {
        double[] mean = new double[size.length];
        for (int i = 0; i < values.length; i++) {
            mean[groupOf[i]] += values[i] / size[groupOf[i]];
        }
        double[] side = new double[matrix.size()];
        double squares = 0;
        for (int i = 0; i < values.length; i++) {
            double off = values[i] - mean[groupOf[i]];
            squares += off * off;
            side[raterOf[i]] += off;
        }
        return new Squares(squares, matrix.squaredNorm(side));
    }
}
