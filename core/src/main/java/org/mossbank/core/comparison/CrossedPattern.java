package org.mossbank.core.comparison;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.IntStream;
import org.mossbank.core.estimate.Require;

/**
 * Where values stand: at which prompts, wordings of one put together, and by which raters; with all that follows from that alone.
 * Pairs of candidates whose scores stand at the same places share it.
 */
final class CrossedPattern {
    final int prompts;
    final int raters;
    final int kinds;
    final int[] promptOf;
    final int[] raterOf;
    final int[] kindOf;
    /** Cells of each prompt. */
    final int[] size;

    final SweptRaters byPrompt;
    final SweptRaters byKind;
    /** Sums of squared weights of prompts, raters and cells. */
    final double promptWeights;

    final double raterWeights;
    final double cellWeights;
    /** What the variance between prompts weighs in their sum of squares, with raters in the model and without. */
    final double promptCoefficient;

    final double promptCoefficientWithoutRaters;

    /** The cell that a place belongs to, and how many places each has. */
    private final int[] cellOf;

    private final int[] places;

    /**
     * @param prompts  names; those without a place do not count
     * @param promptAt the prompt of each place, as its position among the names
     * @param raterAt  the rater of each place; several places of one prompt's family and rater are one cell
     */
    CrossedPattern(List<String> prompts, int[] promptAt, int[] raterAt, PromptGroups groups) {
        List<String> there = IntStream.of(promptAt)
                .mapToObj(prompts::get)
                .distinct()
                .sorted()
                .toList();
        Map<String, Integer> familyOf = new TreeMap<>();
        List<Integer> kind = new ArrayList<>();
        List<List<int[]>> strata = groups.strata(there);
        for (int k = 0; k < strata.size(); k++) {
            for (int[] family : strata.get(k)) {
                for (int prompt : family) {
                    familyOf.put(there.get(prompt), kind.size());
                }
                kind.add(k);
            }
        }
        kinds = strata.size();
        kindOf = kind.stream().mapToInt(Integer::intValue).toArray();
        this.prompts = kindOf.length;
        int[] numbers = IntStream.of(raterAt).distinct().sorted().toArray();
        raters = numbers.length;
        int[] cellAt = new int[promptAt.length];
        for (int i = 0; i < cellAt.length; i++) {
            cellAt[i] = Require.known(familyOf, prompts.get(promptAt[i])) * raters
                    + Arrays.binarySearch(numbers, raterAt[i]);
        }
        int[] cells = IntStream.of(cellAt).distinct().sorted().toArray();
        cellOf = IntStream.of(cellAt).map(c -> Arrays.binarySearch(cells, c)).toArray();
        places = new int[cells.length];
        IntStream.of(cellOf).forEach(c -> places[c]++);
        promptOf = IntStream.of(cells).map(c -> c / raters).toArray();
        raterOf = IntStream.of(cells).map(c -> c % raters).toArray();
        size = new int[this.prompts];
        IntStream.of(promptOf).forEach(p -> size[p]++);
        byPrompt = new SweptRaters(this, promptOf, this.prompts);
        byKind =
                new SweptRaters(this, IntStream.of(promptOf).map(p -> kindOf[p]).toArray(), kinds);
        promptWeights = squares(promptOf, this.prompts);
        raterWeights = squares(raterOf, raters);
        cellWeights = squares(IntStream.range(0, cells()).toArray(), cells());
        promptCoefficient = promptCoefficient(true);
        promptCoefficientWithoutRaters = promptCoefficient(false);
    }

    int cells() {
        return promptOf.length;
    }

    /** The value of each cell: the mean of those at its places. */
    double[] cellValues(double[] atPlaces) {
        double[] values = new double[cells()];
        for (int i = 0; i < cellOf.length; i++) {
            values[cellOf[i]] += atPlaces[i] / places[cellOf[i]];
        }
        return values;
    }

    /** What a cell counts for: each prompt alike, and alike within a prompt. */
    private double weight(int cell) {
        return 1.0 / prompts / size[promptOf[cell]];
    }

    double mean(double[] values) {
        double sum = 0;
        for (int i = 0; i < values.length; i++) {
            sum += weight(i) * values[i];
        }
        return sum;
    }

    /** The sum of squared weights of groups of cells. */
    private double squares(int[] groupOf, int groups) {
        double[] share = new double[groups];
        for (int i = 0; i < groupOf.length; i++) {
            share[groupOf[i]] += weight(i);
        }
        return Arrays.stream(share).map(w -> w * w).sum();
    }

    /** The trace of what is left of prompts when kinds, and raters where they are in the model, are swept out. */
    private double promptCoefficient(boolean ratersToo) {
        int[][] of = new int[prompts][raters];
        int[] kindSize = new int[kinds];
        int[][] ofKind = new int[kinds][raters];
        for (int i = 0; i < cells(); i++) {
            int k = kindOf[promptOf[i]];
            kindSize[k]++;
            of[promptOf[i]][raterOf[i]]++;
            ofKind[k][raterOf[i]]++;
        }
        double trace = 0;
        double[] column = new double[raters];
        for (int p = 0; p < prompts; p++) {
            int k = kindOf[p];
            double share = (double) size[p] / kindSize[k];
            trace += size[p] * (1 - share);
            if (ratersToo) {
                for (int r = 0; r < raters; r++) {
                    column[r] = of[p][r] - share * ofKind[k][r];
                }
                trace -= byKind.matrix.squaredNorm(column);
            }
        }
        return trace;
    }
}
