package org.mossbank.core.comparison;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mossbank.core.estimate.LinearSystem;

/**
 * The additive model over the scores there are, by weighted least squares.
 *
 * <p>\[ y_{cpr} = \mu + \alpha_c + \beta_p + \gamma_r + \varepsilon_{cpr}, \quad
 * \min \sum w_p w_r \, (y_{cpr} - \mu - \alpha_c - \beta_p - \gamma_r)^2 \]
 *
 * <p>Scores and effects in points. A candidate's mean is taken at the weighted average prompt and rater. Where the scores do not
 * connect all candidates, by prompts and raters that they share, the normal equations are rank deficient and nothing is defined.
 *
 * <p>Of prompts and raters the one with more levels is swept out of the normal equations: with \(v_s\) the weighted counts of
 * candidates and of the other's levels at level \(s\), \[ \left( \textstyle\sum_s w_s (\mathrm{diag} - v_s v_s^\top / v_{s+})
 * \right) x = \textstyle\sum_s w_s (b_s - v_s y_{s+} / v_{s+}) \] so that what is solved has as many rows as there are candidates
 * and levels of the smaller. A level without a score of weight counts nowhere. Levels with scores at the same places are
 * swept together. Cost O(scores + their patterns × (candidates + raters)² + (candidates + raters)³), with prompts the more.
 *
 * <p>Source: S. Searle (1971), <i>Linear Models</i>, ch. 7 (absorption); G. Golub and C. Van Loan (2013), <i>Matrix
 * Computations</i>, 4th ed., sec. 4.2.
 */
final class AdditiveModel {
    private final boolean sweepsPrompts;
    private final int candidates;
    private final int kept;
    /** The places of swept level s are those from placesFrom[s] to placesFrom[s + 1]. */
    private final int[] placesFrom;

    /** Of each place: its kept level, and where its scores begin. */
    private final int[] keptOf;

    private final int[] scoresFrom;
    private final int[] candidateOf;
    private final int[] placeOf;
    private final double[] score;
    /** Swept levels that have scores, those with the same places together. */
    private final int[][] patterns;

    AdditiveModel(ScoreGrid grid) {
        int prompts = grid.prompts().size();
        int raters = grid.raters().size();
        sweepsPrompts = prompts >= raters;
        candidates = grid.candidates().size();
        kept = sweepsPrompts ? raters : prompts;
        int swept = sweepsPrompts ? prompts : raters;
        placesFrom = new int[swept + 1];
        int scores = 0;
        for (int place = 0; place < grid.places(); place++) {
            placesFrom[sweptAt(grid, place) + 1]++;
            for (int c = 0; c < candidates; c++) {
                scores += grid.has(c, place) ? 1 : 0;
            }
        }
        Arrays.parallelPrefix(placesFrom, Integer::sum);
        int[] next = placesFrom.clone();
        int[] order = new int[grid.places()];
        for (int place = 0; place < order.length; place++) {
            order[next[sweptAt(grid, place)]++] = place;
        }
        keptOf = new int[order.length];
        scoresFrom = new int[order.length + 1];
        candidateOf = new int[scores];
        placeOf = new int[scores];
        int at = 0;
        for (int i = 0; i < order.length; i++) {
            keptOf[i] = sweepsPrompts ? grid.raterOf(order[i]) : grid.promptOf(order[i]);
            for (int c = 0; c < candidates; c++) {
                if (grid.has(c, order[i])) {
                    candidateOf[at] = c;
                    placeOf[at++] = order[i];
                }
            }
            scoresFrom[i + 1] = at;
        }
        score = new double[scores];
        read(grid);
        patterns = patterns();
    }

    /** Of other scores at the same places. */
    AdditiveModel(ScoreGrid grid, AdditiveModel like) {
        sweepsPrompts = like.sweepsPrompts;
        candidates = like.candidates;
        kept = like.kept;
        placesFrom = like.placesFrom;
        keptOf = like.keptOf;
        scoresFrom = like.scoresFrom;
        candidateOf = like.candidateOf;
        placeOf = like.placeOf;
        score = new double[like.score.length];
        patterns = like.patterns;
        read(grid);
    }

    private void read(ScoreGrid grid) {
        for (int at = 0; at < score.length; at++) {
            score[at] = grid.score(candidateOf[at], placeOf[at]);
        }
    }

    private int sweptAt(ScoreGrid grid, int place) {
        return sweepsPrompts ? grid.promptOf(place) : grid.raterOf(place);
    }

    /** Candidate means with every prompt and rater at weight 1. */
    Optional<double[]> means() {
        return solve(ones(placesFrom.length - 1), ones(kept));
    }

    /** The same, one prompt at weight 0. */
    Optional<double[]> meansWithout(int prompt) {
        double[] promptWeight = ones(sweepsPrompts ? placesFrom.length - 1 : kept);
        promptWeight[prompt] = 0;
        return means(promptWeight, ones(sweepsPrompts ? kept : placesFrom.length - 1));
    }

    /**
     * Candidate means under weights of prompts and raters.
     *
     * @return one mean a candidate; empty if what has weight does not connect the candidates
     */
    Optional<double[]> means(double[] promptWeight, double[] raterWeight) {
        return sweepsPrompts ? solve(promptWeight, raterWeight) : solve(raterWeight, promptWeight);
    }

    private static double[] ones(int n) {
        double[] ones = new double[n];
        Arrays.fill(ones, 1);
        return ones;
    }

    private Optional<double[]> solve(double[] sweptWeight, double[] keptWeight) {
        Swept sum = new Swept(candidates + kept);
        for (int[] alike : patterns) {
            double all = 0;
            for (int level : alike) {
                all += sweptWeight[level];
            }
            if (all > 0) {
                sum.add(alike, sweptWeight, all, keptWeight);
            }
        }
        return sum.means(keptWeight);
    }

    /** Swept levels with scores at the same places: what they add differs by their weights and scores alone. */
    private int[][] patterns() {
        Map<List<Integer>, List<Integer>> alike = new LinkedHashMap<>();
        for (int s = 0; s < placesFrom.length - 1; s++) {
            List<Integer> places = new ArrayList<>();
            for (int i = placesFrom[s]; i < placesFrom[s + 1]; i++) {
                for (int at = scoresFrom[i]; at < scoresFrom[i + 1]; at++) {
                    places.add(keptOf[i] * candidates + candidateOf[at]);
                }
            }
            if (!places.isEmpty()) {
                alike.computeIfAbsent(places, p -> new ArrayList<>()).add(s);
            }
        }
        return alike.values().stream()
                .map(levels -> levels.stream().mapToInt(s -> s).toArray())
                .toArray(int[][]::new);
    }

    /** Normal equations of candidates and kept levels, grown swept level by swept level. */
    private final class Swept {
        private final double[][] matrix;
        private final double[] side;
        /** The diagonal before anything is swept out, against which a pivot is held. */
        private final double[] gross;
        /** Of the level at hand: weighted counts, and the columns that have any. */
        private final double[] count;

        private final int[] columns;
        private final double[] averageCount;
        private double averageScore;
        private double weight;

        Swept(int size) {
            matrix = new double[size][size];
            side = new double[size];
            gross = new double[size];
            count = new double[size];
            columns = new int[size];
            averageCount = new double[size];
        }

        /**
         * @param alike  levels with scores at the same places
         * @param levelWeight of each level there is
         * @param all    the sum of their weights
         */
        void add(int[] alike, double[] levelWeight, double all, double[] keptWeight) {
            int first = scoresFrom[placesFrom[alike[0]]];
            double[] weighted = weighted(alike, levelWeight);
            int used = 0;
            double total = 0;
            double scores = 0;
            for (int i = placesFrom[alike[0]]; i < placesFrom[alike[0] + 1]; i++) {
                double w = keptWeight[keptOf[i]];
                int from = scoresFrom[i];
                int to = scoresFrom[i + 1];
                if (w == 0 || from == to) {
                    continue;
                }
                int k = candidates + keptOf[i];
                double ofPlace = 0;
                for (int at = from; at < to; at++) {
                    int c = candidateOf[at];
                    used = counted(c, w, used);
                    // The lower index first: one triangle is enough.
                    matrix[c][k] += all * w;
                    side[c] += w * weighted[at - first];
                    ofPlace += weighted[at - first];
                }
                used = counted(k, w * (to - from), used);
                side[k] += w * ofPlace;
                total += w * (to - from);
                scores += w * ofPlace;
            }
            if (total == 0) {
                return;
            }
            sweep(used, all, total, scores);
        }

        /** The weighted sum of the levels' scores, place by place. */
        private double[] weighted(int[] alike, double[] levelWeight) {
            int length = scoresFrom[placesFrom[alike[0] + 1]] - scoresFrom[placesFrom[alike[0]]];
            double[] sum = new double[length];
            for (int level : alike) {
                double w = levelWeight[level];
                if (w == 0) {
                    continue;
                }
                int from = scoresFrom[placesFrom[level]];
                for (int i = 0; i < length; i++) {
                    sum[i] += w * score[from + i];
                }
            }
            return sum;
        }

        private int counted(int column, double w, int used) {
            int now = used;
            if (count[column] == 0) {
                columns[now++] = column;
            }
            count[column] += w;
            return now;
        }

        /** @param scores weighted by the levels too */
        private void sweep(int used, double levelWeight, double total, double scores) {
            weight += levelWeight;
            averageScore += scores / total;
            for (int a = 0; a < used; a++) {
                int i = columns[a];
                double share = levelWeight * count[i] / total;
                gross[i] += levelWeight * count[i];
                matrix[i][i] += levelWeight * count[i];
                averageCount[i] += share;
                side[i] -= count[i] / total * scores;
                double[] row = matrix[i];
                for (int b = 0; b < used; b++) {
                    if (columns[b] >= i) {
                        row[columns[b]] -= share * count[columns[b]];
                    }
                }
            }
            for (int a = 0; a < used; a++) {
                count[columns[a]] = 0;
            }
        }

        Optional<double[]> means(double[] keptWeight) {
            hold(0);
            int last = -1;
            for (int k = candidates; k < side.length; k++) {
                if (gross[k] == 0) {
                    hold(k);
                } else {
                    last = k;
                }
            }
            if (last < 0) {
                return Optional.empty();
            }
            double keptTotal = 0;
            for (int k = candidates; k < side.length; k++) {
                keptTotal += gross[k] == 0 ? 0 : keptWeight[k - candidates];
            }
            hold(last);
            double total = keptTotal;
            return gross[0] == 0
                    ? Optional.empty()
                    : LinearSystem.solveInPlace(matrix, side, gross).map(x -> means(x, keptWeight, total));
        }

        /** An effect that is held at 0: one of each factor, and what has no score of weight. */
        private void hold(int column) {
            for (int i = 0; i < side.length; i++) {
                matrix[Math.min(i, column)][Math.max(i, column)] = 0;
            }
            matrix[column][column] = 1;
            side[column] = 0;
            gross[column] = gross[column] == 0 ? 0 : 1;
        }

        private double[] means(double[] x, double[] keptWeight, double keptTotal) {
            double shift = averageScore;
            for (int i = 0; i < x.length; i++) {
                shift -= averageCount[i] * x[i];
            }
            shift /= weight;
            for (int k = 0; k < kept; k++) {
                shift += keptWeight[k] * x[candidates + k] / keptTotal;
            }
            double[] means = new double[candidates];
            for (int c = 0; c < candidates; c++) {
                means[c] = x[c] + shift;
            }
            return means;
        }
    }
}
