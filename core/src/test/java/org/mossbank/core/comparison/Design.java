package org.mossbank.core.comparison;

import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.mossbank.core.estimate.LinearSystem;

/**
 * The additive model over the cells there are, by weighted least squares.
 *
 * <p>\[ y_{cpr} = \mu + \alpha_c + \beta_p + \gamma_r + \varepsilon_{cpr}, \quad
 * \min \sum w_{cpr} \, (y_{cpr} - \mu - \alpha_c - \beta_p - \gamma_r)^2 \]
 *
 * <p>Scores and effects are in points. Where the cells do not connect all candidates, by prompts and raters that they
 * share, the normal equations are rank deficient and nothing is defined.
 *
 * <p>One parameter for the mean and one less than its levels for each factor. Effects are estimated with the last level
 * of prompt and rater at zero; candidate means are then taken at the average prompt and rater, which is the same as
 * effects that sum to zero.
 */
final class Design {
    private final List<String> candidates;
    private final List<String> prompts;
    private final List<String> raters;
    private final int[][] index;
    private final int[][] columns;
    private final double[] score;

    Design(List<ScoredCell> cells) {
        candidates = levels(cells, ScoredCell::candidate);
        prompts = levels(cells, ScoredCell::prompt);
        raters = levels(cells, ScoredCell::rater);
        Map<String, Integer> candidateAt = places(candidates);
        Map<String, Integer> promptAt = places(prompts);
        Map<String, Integer> raterAt = places(raters);
        index = new int[cells.size()][];
        columns = new int[cells.size()][];
        score = new double[cells.size()];
        for (int i = 0; i < index.length; i++) {
            ScoredCell cell = cells.get(i);
            index[i] =
                    new int[] {candidateAt.get(cell.candidate()), promptAt.get(cell.prompt()), raterAt.get(cell.rater())
                    };
            columns[i] = columnsOf(index[i]);
            score[i] = cell.score();
        }
    }

    private static List<String> levels(List<ScoredCell> cells, Function<ScoredCell, String> factor) {
        Set<String> levels = new HashSet<>();
        cells.forEach(c -> levels.add(factor.apply(c)));
        return levels.stream().sorted().toList();
    }

    private static Map<String, Integer> places(List<String> levels) {
        Map<String, Integer> places = new HashMap<>();
        levels.forEach(l -> places.put(l, places.size()));
        return places;
    }

    List<String> candidates() {
        return candidates;
    }

    List<String> prompts() {
        return prompts;
    }

    List<String> raters() {
        return raters;
    }

    int cells() {
        return score.length;
    }

    double score(int cell) {
        return score[cell];
    }

    /** Parameters: one for the mean, one less than the levels of each factor. */
    int parameters() {
        return candidates.size() + (prompts.size() - 1) + (raters.size() - 1);
    }

    /** Columns in which a cell's row is 1: its candidate, its prompt and its rater, the last level of the latter two left out. */
    private int[] columnsOf(int[] levels) {
        int[] found = new int[3];
        int n = 0;
        found[n++] = levels[0];
        if (levels[1] < prompts.size() - 1) {
            found[n++] = candidates.size() + levels[1];
        }
        if (levels[2] < raters.size() - 1) {
            found[n++] = candidates.size() + prompts.size() - 1 + levels[2];
        }
        return Arrays.copyOf(found, n);
    }

    /** The normal equations' matrix; unit weights where none are given. */
    double[][] crossProducts(double[] promptWeight, double[] raterWeight) {
        double[][] matrix = new double[parameters()][parameters()];
        for (int i = 0; i < score.length; i++) {
            double weight = promptWeight[index[i][1]] * raterWeight[index[i][2]];
            if (weight == 0) {
                continue;
            }
            for (int a : columns[i]) {
                for (int b : columns[i]) {
                    matrix[a][b] += weight;
                }
            }
        }
        return matrix;
    }

    private double[] rightSide(double[] promptWeight, double[] raterWeight) {
        double[] side = new double[parameters()];
        for (int i = 0; i < score.length; i++) {
            double weight = promptWeight[index[i][1]] * raterWeight[index[i][2]];
            for (int a : columns[i]) {
                side[a] += weight * score[i];
            }
        }
        return side;
    }

    /** All parameters for the whole data; empty if the design is not connected. */
    Optional<double[]> solve() {
        double[] promptWeight = ones(prompts.size());
        double[] raterWeight = ones(raters.size());
        return LinearSystem.solveInPlace(
                crossProducts(promptWeight, raterWeight), rightSide(promptWeight, raterWeight));
    }

    static double[] ones(int n) {
        double[] ones = new double[n];
        Arrays.fill(ones, 1);
        return ones;
    }

    double fitted(double[] parameters, int cell) {
        double sum = 0;
        for (int column : columns[cell]) {
            sum += parameters[column];
        }
        return sum;
    }

    /** Coefficients that turn parameters into the mean of one candidate at the average prompt and rater. */
    double[] contrast(int candidate) {
        double[] contrast = new double[parameters()];
        contrast[candidate] = 1;
        for (int p = 0; p < prompts.size() - 1; p++) {
            contrast[candidates.size() + p] = 1.0 / prompts.size();
        }
        for (int r = 0; r < raters.size() - 1; r++) {
            contrast[candidates.size() + prompts.size() - 1 + r] = 1.0 / raters.size();
        }
        return contrast;
    }

    /**
     * Candidate means under weights of prompts and raters, each at the weighted average prompt and rater.
     *
     * @return one mean a candidate; empty if what has weight does not connect the candidates
     */
    Optional<double[]> weightedMeans(double[] promptWeight, double[] raterWeight) {
        double[][] matrix = crossProducts(promptWeight, raterWeight);
        double[] side = rightSide(promptWeight, raterWeight);
        // A prompt or rater that was not drawn has an empty row: hold its effect at zero.
        for (int i = candidates.size(); i < side.length; i++) {
            if (matrix[i][i] == 0) {
                matrix[i][i] = 1;
            }
        }
        // The prompt or rater whose effect is fixed at zero may not have been drawn; then fix the last drawn one.
        holdLastDrawn(matrix, side, promptWeight, candidates.size());
        holdLastDrawn(matrix, side, raterWeight, candidates.size() + prompts.size() - 1);
        return LinearSystem.solveInPlace(matrix, side).map(x -> means(x, promptWeight, raterWeight));
    }

    private static void holdLastDrawn(double[][] matrix, double[] side, double[] weight, int offset) {
        int last = weight.length - 1;
        if (weight[last] > 0) {
            return;
        }
        while (last > 0 && weight[last] == 0) {
            last--;
        }
        int column = offset + last;
        for (int i = 0; i < side.length; i++) {
            matrix[i][column] = 0;
            matrix[column][i] = 0;
        }
        matrix[column][column] = 1;
        side[column] = 0;
    }

    private double[] means(double[] x, double[] promptWeight, double[] raterWeight) {
        double shift = average(x, promptWeight, candidates.size())
                + average(x, raterWeight, candidates.size() + prompts.size() - 1);
        double[] means = new double[candidates.size()];
        for (int c = 0; c < means.length; c++) {
            means[c] = x[c] + shift;
        }
        return means;
    }

    private static double average(double[] x, double[] weight, int offset) {
        double sum = 0;
        double total = weight[weight.length - 1];
        for (int i = 0; i < weight.length - 1; i++) {
            sum += weight[i] * x[offset + i];
            total += weight[i];
        }
        return sum / total;
    }
}
