package org.mossbank.core.robustness;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.mossbank.core.comparison.MixedGrids;
import org.mossbank.core.comparison.ScoreGrid;
import org.mossbank.core.rubric.OverallScore;

/**
 * Grids under many weights. Gives the same scores as {@link GradedAnswers#grid}, to the last digit where there is one attempt.
 */
public final class Weighing {
    private final GradedAnswers graded;
    private final List<GradedRow> rows;
    private final Optional<ScoreGrid> base;
    /** The place and candidate of each row in the base. */
    private final int[] candidateOf;

    private final int[] placeOf;

    private final int[][] count;
    /** The sum of shares of each criterion, by candidate and place; none where scores are not a sum of them. */
    private final double[][][] byCriterion;

    private final Optional<MixedGrids> mixed;

    Weighing(GradedAnswers graded, List<GradedRow> rows) {
        this.graded = graded;
        this.rows = rows;
        double[] all = new double[graded.criteria().size()];
        Arrays.fill(all, 1);
        base = graded.grid(all);
        candidateOf = new int[rows.size()];
        placeOf = new int[rows.size()];
        count = base.map(b -> new int[b.candidates().size()][b.places()]).orElse(new int[0][]);
        base.ifPresent(b -> {
            for (int i = 0; i < placeOf.length; i++) {
                GradedRow.Place place = rows.get(i).place();
                candidateOf[i] = b.candidateAt(place.candidate());
                placeOf[i] = b.placeAt(place.prompt(), place.rater());
                count[candidateOf[i]][placeOf[i]]++;
            }
        });
        byCriterion = rows.stream().allMatch(GradedRow::isPlain) ? byCriterion() : new double[0][][];
        mixed = byCriterion.length == 0 ? Optional.empty() : base.map(b -> new MixedGrids(b, parts()));
    }

    /** What each criterion alone would score. */
    private List<double[][]> parts() {
        List<double[][]> parts = new ArrayList<>();
        for (int k = 0; k < byCriterion.length; k++) {
            double[] alone = new double[byCriterion.length];
            alone[k] = 1;
            parts.add(weighed(alone, 1));
        }
        return parts;
    }

    private double[][][] byCriterion() {
        double[][][] sums = new double[graded.criteria().size()][count.length][];
        for (double[][] one : sums) {
            for (int c = 0; c < one.length; c++) {
                one[c] = new double[count[c].length];
            }
        }
        for (int i = 0; i < placeOf.length; i++) {
            for (int k = 0; k < sums.length; k++) {
                sums[k][candidateOf[i]][placeOf[i]] += rows.get(i).share(k);
            }
        }
        return sums;
    }

    private double[][] weighed(double[] weights, double total) {
        double[][] scores = new double[count.length][];
        for (int c = 0; c < scores.length; c++) {
            double[] own = new double[count[c].length];
            for (int k = 0; k < weights.length; k++) {
                double weight = weights[k];
                double[] one = byCriterion[k][c];
                for (int p = 0; p < own.length; p++) {
                    own[p] += weight * one[p];
                }
            }
            for (int p = 0; p < own.length; p++) {
                // In the order of a single score: else two that are equal could come to lie apart by a last digit.
                own[p] = OverallScore.HIGHEST * own[p] / total / Math.max(1, count[c][p]);
            }
            scores[c] = own;
        }
        return scores;
    }

    /**
     * @param weights of the criteria, at least 0
     * @return empty if nothing with weight was graded
     */
    public Optional<ScoreGrid> grid(double... weights) {
        if (base.isEmpty()) {
            return base;
        }
        double total = Arrays.stream(weights).sum();
        if (byCriterion.length > 0 && total > 0) {
            return Optional.of(base.get().with(weighed(weights, total)));
        }
        double[][] scores = new double[count.length][base.get().places()];
        for (int i = 0; i < placeOf.length; i++) {
            double score = rows.get(i).score(weights);
            if (Double.isNaN(score)) {
                // Some answer has no grade with weight: then scores stand elsewhere than in the base.
                return graded.grid(weights);
            }
            scores[candidateOf[i]][placeOf[i]] += score / count[candidateOf[i]][placeOf[i]];
        }
        return Optional.of(base.get().with(scores));
    }

    /**
     * The same to be decided by, and by nothing else: figures of many weights come from sums that are worked out once, and may be
     * another one's by a last digit.
     */
    Optional<ScoreGrid> tried(double... weights) {
        double total = Arrays.stream(weights).sum();
        if (mixed.isEmpty() || total <= 0) {
            return grid(weights);
        }
        double[] shares = Arrays.stream(weights).map(w -> w / total).toArray();
        return Optional.of(mixed.get().of(weighed(weights, total), shares));
    }
}
