package org.mossbank.core.comparison;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.mossbank.core.estimate.Require;

/** Cells by number: each family of prompts and rater once. */
final class CrossedLayout {
    final int prompts;
    final int raters;
    final int kinds;
    final int[] promptOf;
    final int[] raterOf;
    final double[] value;
    final int[] kindOf;
    /** Cells of each prompt. */
    final int[] size;

    CrossedLayout(List<CrossedMean.Cell> cells, PromptGroups groups) {
        List<String> names =
                cells.stream().map(CrossedMean.Cell::prompt).distinct().sorted().toList();
        List<List<int[]>> strata = groups.strata(names);
        kinds = strata.size();
        int[] familyOf = new int[names.size()];
        List<Integer> kind = new ArrayList<>();
        for (int k = 0; k < kinds; k++) {
            for (int[] family : strata.get(k)) {
                for (int prompt : family) {
                    familyOf[prompt] = kind.size();
                }
                kind.add(k);
            }
        }
        prompts = kind.size();
        kindOf = kind.stream().mapToInt(Integer::intValue).toArray();
        Map<String, Integer> promptAt = index(names);
        Map<String, Integer> raterAt = index(
                cells.stream().map(CrossedMean.Cell::rater).distinct().sorted().toList());
        raters = raterAt.size();
        double[][] sum = new double[prompts][raters];
        int[][] count = new int[prompts][raters];
        for (CrossedMean.Cell cell : cells) {
            int p = familyOf[Require.known(promptAt, cell.prompt())];
            int r = Require.known(raterAt, cell.rater());
            sum[p][r] += cell.value();
            count[p][r]++;
        }
        int n = 0;
        for (int[] row : count) {
            n += (int) Arrays.stream(row).filter(c -> c > 0).count();
        }
        size = new int[prompts];
        promptOf = new int[n];
        raterOf = new int[n];
        value = new double[n];
        int i = 0;
        for (int p = 0; p < prompts; p++) {
            for (int r = 0; r < raters; r++) {
                if (count[p][r] > 0) {
                    promptOf[i] = p;
                    raterOf[i] = r;
                    value[i] = sum[p][r] / count[p][r];
                    size[p]++;
                    i++;
                }
            }
        }
    }

    private static Map<String, Integer> index(List<String> names) {
        Map<String, Integer> index = new TreeMap<>();
        names.forEach(name -> index.put(name, index.size()));
        return index;
    }

    int cells() {
        return value.length;
    }

    /** What a cell counts for: each prompt alike, and alike within a prompt. */
    double weight(int cell) {
        return 1.0 / prompts / size[promptOf[cell]];
    }

    double mean() {
        double sum = 0;
        for (int i = 0; i < value.length; i++) {
            sum += weight(i) * value[i];
        }
        return sum;
    }
}
