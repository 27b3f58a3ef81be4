package org.mossbank.core.diagnosis;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import org.mossbank.core.agreement.KrippendorffAlpha;
import org.mossbank.core.agreement.Metric;
import org.mossbank.core.agreement.Rating;
import org.mossbank.core.agreement.RatingMatrix;
import org.mossbank.core.estimate.Estimate;

/**
 * What the disagreement on one criterion consists of.
 *
 * <p>The observed disagreement of ordinal alpha is a sum over pairs of grades of one answer, each pair weighing \(1 / (m_u - 1)\):
 * \[ D_o \propto \sum_u \frac{1}{m_u - 1} \sum_{i < j} \delta^2_{g_{ui} g_{uj}} \] with \(m_u\) grades of answer \(u\) and \(\delta\)
 * the ordinal distance of {@link KrippendorffAlpha}. Every share is of that sum: in [0, 1], each list together 1. With no
 * disagreement there are no shares. Cost O(answers × raters²).
 *
 * @param prompts    by prompt, largest first
 * @param raterPairs by two raters, largest first
 * @param levelPairs by two levels, largest first
 * @param merged     what alpha would be if two neighbouring levels were one, largest first; a diagnosis, never a change of figures
 */
public record Disagreement(List<Share> prompts, List<Share> raterPairs, List<Share> levelPairs, List<Merged> merged) {
    public Disagreement {
        prompts = List.copyOf(prompts);
        raterPairs = List.copyOf(raterPairs);
        levelPairs = List.copyOf(levelPairs);
        merged = List.copyOf(merged);
    }

    /**
     * @param first  a prompt, a rater, or a level as a number
     * @param second the other rater or level; empty for a prompt
     * @param share  of all disagreement, in [0, 1]
     * @param pairs  of grades that it rests on, those that agree included
     */
    public record Share(String first, String second, double share, int pairs) {}

    /** @param lower the lower of two neighbouring levels */
    public record Merged(int lower, Estimate alpha) {}

    /** @param promptOf the prompt of each unit of the matrix */
    public static Disagreement of(RatingMatrix matrix, UnaryOperator<String> promptOf) {
        double[][] distance = distances(matrix);
        Sums prompts = new Sums();
        Sums raters = new Sums();
        Sums levels = new Sums();
        int n = matrix.raters().size();
        for (int u = 0; u < matrix.units().size(); u++) {
            int[] grades = grades(matrix, u);
            long given = Arrays.stream(grades).filter(g -> g >= 0).count();
            if (given < 2) {
                continue;
            }
            String prompt = promptOf.apply(matrix.units().get(u));
            for (int i = 0; i < n; i++) {
                for (int j = i + 1; j < n; j++) {
                    if (grades[i] >= 0 && grades[j] >= 0) {
                        int low = Math.min(grades[i], grades[j]);
                        int high = Math.max(grades[i], grades[j]);
                        double part = distance[low][high] / (given - 1);
                        prompts.add(prompt, "", part);
                        raters.add(matrix.raters().get(i), matrix.raters().get(j), part);
                        levels.add(Integer.toString(low), Integer.toString(high), part);
                    }
                }
            }
        }
        return new Disagreement(prompts.shares(), raters.shares(), levels.shares(), merged(matrix));
    }

    /** A grade a rater, below 0 where there is none. */
    private static int[] grades(RatingMatrix matrix, int unit) {
        int[] grades = new int[matrix.raters().size()];
        for (int r = 0; r < grades.length; r++) {
            grades[r] = matrix.category(unit, r).orElse(-1);
        }
        return grades;
    }

    /** Squared ordinal distances, from the grades of answers that have two or more. */
    private static double[][] distances(RatingMatrix matrix) {
        int k = matrix.levels();
        double[] count = new double[k];
        for (int u = 0; u < matrix.units().size(); u++) {
            int[] grades = grades(matrix, u);
            if (Arrays.stream(grades).filter(g -> g >= 0).count() >= 2) {
                Arrays.stream(grades).filter(g -> g >= 0).forEach(g -> count[g]++);
            }
        }
        double[][] distance = new double[k][k];
        for (int low = 0; low < k; low++) {
            double between = count[low] / 2;
            for (int high = low + 1; high < k; high++) {
                double d = between + count[high] / 2;
                distance[low][high] = d * d;
                between += count[high];
            }
        }
        return distance;
    }

    private static List<Merged> merged(RatingMatrix matrix) {
        List<Merged> all = new ArrayList<>();
        for (int lower = 0; lower + 1 < matrix.levels(); lower++) {
            int last = lower;
            List<Rating> ratings = new ArrayList<>();
            for (int u = 0; u < matrix.units().size(); u++) {
                for (int r = 0; r < matrix.raters().size(); r++) {
                    OptionalInt level = matrix.category(u, r);
                    if (level.isPresent()) {
                        int given = level.getAsInt();
                        ratings.add(new Rating(
                                matrix.units().get(u), matrix.raters().get(r), given > last ? given - 1 : given));
                    }
                }
            }
            all.add(new Merged(
                    lower,
                    KrippendorffAlpha.of(RatingMatrix.ofLevels(ratings, Math.max(1, matrix.levels() - 2)))
                            .value(Metric.ORDINAL)));
        }
        all.sort(Comparator.comparingDouble((Merged m) -> m.alpha().value().orElse(Double.NEGATIVE_INFINITY))
                .reversed());
        return all;
    }

    /** Parts by what they belong to. */
    private static final class Sums {
        private record Key(String first, String second) implements Comparable<Key> {
            @Override
            public int compareTo(Key other) {
                int byFirst = first.compareTo(other.first);
                return byFirst == 0 ? second.compareTo(other.second) : byFirst;
            }
        }

        private final Map<Key, double[]> parts = new TreeMap<>();
        private double all;

        void add(String first, String second, double part) {
            double[] sum = parts.computeIfAbsent(new Key(first, second), k -> new double[2]);
            sum[0] += part;
            sum[1]++;
            all += part;
        }

        List<Share> shares() {
            return all == 0
                    ? List.of()
                    : parts.entrySet().stream()
                            .map(e -> new Share(e.getKey().first(), e.getKey().second(), e.getValue()[0] / all, (int)
                                    e.getValue()[1]))
                            .sorted(Comparator.comparingDouble(Share::share).reversed())
                            .toList();
        }
    }
}
