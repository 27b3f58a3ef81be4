package org.mossbank.core.comparison;

/** What raters add to a model of groups (prompts, or kinds): the normal equations with the groups swept out. */
final class SweptRaters {
    final RankedCholesky matrix;
    final double trace;

    /** Cells of each group by rater, and in all. */
    private final int[][] of;

    private final int[] size;
    private final double[][] equations;
    private final int[] groupOf;
    private final int[] raterOf;

    private SweptRaters(int[] groupOf, int[] raterOf, int[][] of, int[] size, double[][] equations) {
        this.groupOf = groupOf;
        this.raterOf = raterOf;
        this.of = of;
        this.size = size;
        this.equations = equations;
        double sum = 0;
        for (int r = 0; r < equations.length; r++) {
            sum += equations[r][r];
        }
        trace = sum;
        matrix = RankedCholesky.of(equations);
    }

    /**
     * @param groupOf the group of each cell
     * @param raterOf the rater of each cell
     */
    static SweptRaters of(int[] groupOf, int[] raterOf, int groups, int raters) {
        int[][] of = new int[groups][raters];
        int[] size = new int[groups];
        for (int i = 0; i < groupOf.length; i++) {
            of[groupOf[i]][raterOf[i]]++;
            size[groupOf[i]]++;
        }
        double[][] equations = new double[raters][raters];
        for (int g = 0; g < groups; g++) {
            add(equations, of[g], size[g], 1);
        }
        return new SweptRaters(groupOf, raterOf, of, size, equations);
    }

    /** Adds a group's part times a sign: what it has by rater on the diagonal, less what it shares out. */
    private static void add(double[][] equations, int[] byRater, int size, int sign) {
        for (int r = 0; r < byRater.length; r++) {
            if (byRater[r] == 0) {
                continue;
            }
            equations[r][r] += sign * byRater[r];
            double share = sign * (double) byRater[r] / size;
            for (int s = 0; s < byRater.length; s++) {
                equations[r][s] -= share * byRater[s];
            }
        }
    }

    /**
     * The same with fewer cells in one group.
     *
     * @param fewerGroups the groups and raters of the cells that are left
     * @param taken       cells of the group that go, by rater; all of them take the group away
     */
    SweptRaters without(int[] fewerGroups, int[] fewerRaters, int group, int[] taken) {
        int[] left = of[group].clone();
        int leftSize = 0;
        for (int r = 0; r < left.length; r++) {
            left[r] -= taken[r];
            leftSize += left[r];
        }
        double[][] fewer = new double[equations.length][];
        for (int r = 0; r < fewer.length; r++) {
            fewer[r] = equations[r].clone();
        }
        add(fewer, of[group], size[group], -1);
        int groups = leftSize == 0 ? of.length - 1 : of.length;
        int[][] ofLeft = new int[groups][];
        int[] sizes = new int[groups];
        for (int g = 0, at = 0; g < of.length; g++) {
            if (g != group) {
                ofLeft[at] = of[g];
                sizes[at++] = size[g];
            } else if (leftSize > 0) {
                add(fewer, left, leftSize, 1);
                ofLeft[at] = left;
                sizes[at++] = leftSize;
            }
        }
        return new SweptRaters(fewerGroups, fewerRaters, ofLeft, sizes, fewer);
    }

    int[] of(int group) {
        return of[group];
    }

    int size(int group) {
        return size[group];
    }

    /**
     * What is left of values within groups.
     *
     * @param within squares
     * @param side   sums by rater
     * @param mean   of each group; none where it is not asked for
     */
    record Sums(double within, double[] side, double[] mean) {}

    /** How much of the squares within groups raters explain. */
    double explained(Sums sums) {
        return matrix.squaredNorm(sums.side);
    }

    private double[] means(double[] values) {
        double[] mean = new double[size.length];
        for (int i = 0; i < values.length; i++) {
            mean[groupOf[i]] += values[i];
        }
        for (int g = 0; g < mean.length; g++) {
            mean[g] /= size[g];
        }
        return mean;
    }

    Sums sums(double[] values) {
        double[] mean = means(values);
        double[] side = new double[matrix.size()];
        double squares = 0;
        for (int i = 0; i < values.length; i++) {
            double off = values[i] - mean[groupOf[i]];
            squares += off * off;
            side[raterOf[i]] += off;
        }
        return new Sums(squares, side, mean);
    }

    /** What each value lies off the mean of its group. */
    double[] off(double[] values) {
        double[] mean = means(values);
        double[] off = new double[values.length];
        for (int i = 0; i < off.length; i++) {
            off[i] = values[i] - mean[groupOf[i]];
        }
        return off;
    }

    double[] byRater(double[] values) {
        double[] sum = new double[matrix.size()];
        for (int i = 0; i < values.length; i++) {
            sum[raterOf[i]] += values[i];
        }
        return sum;
    }
}
