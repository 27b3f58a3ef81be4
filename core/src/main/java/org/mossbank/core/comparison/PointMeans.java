package org.mossbank.core.comparison;

import java.util.List;
import java.util.Optional;

/**
 * The adjusted means of {@link Standings} alone, for many sets of scores in the same cells: made for simulation, where the
 * cells stay and only scores change: \[ \hat\mu_c = \sum_i w_{ci} y_i \], in points, with the weights that least squares gives
 * the cells.
 *
 * <p>Cost: one fit a candidate to make, one product a candidate and cell for each set of scores.
 */
public final class PointMeans {
    private final List<String> candidates;
    private final double[][] weights;

    private PointMeans(List<String> candidates, double[][] weights) {
        this.candidates = candidates;
        this.weights = weights;
    }

    /**
     * @param cells where scores stand; the scores in them do not matter
     * @return empty if the cells do not connect the candidates
     */
    public static Optional<PointMeans> of(List<ScoredCell> cells) {
        Design design = new Design(cells);
        return design.weightsOfScores().map(weights -> new PointMeans(design.candidates(), weights));
    }

    /** The candidates in the order of the means. */
    public List<String> candidates() {
        return candidates;
    }

    /**
     * One adjusted mean a candidate.
     *
     * @param scores one a cell, in the order in which the cells were given
     * @throws IllegalArgumentException if there are more or fewer scores than cells
     */
    public double[] of(double[] scores) {
        double[] means = new double[weights.length];
        for (int c = 0; c < means.length; c++) {
            if (scores.length != weights[c].length) {
                throw new IllegalArgumentException(
                        "scores must be as many as the cells, " + weights[c].length + ": " + scores.length);
            }
            for (int i = 0; i < scores.length; i++) {
                means[c] += weights[c][i] * scores[i];
            }
        }
        return means;
    }
}
