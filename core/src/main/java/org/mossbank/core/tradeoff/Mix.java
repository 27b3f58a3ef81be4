package org.mossbank.core.tradeoff;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.IntStream;
import org.mossbank.core.comparison.CrossedMean;
import org.mossbank.core.comparison.PromptGroups;
import org.mossbank.core.comparison.ScoreGrid;
import org.mossbank.core.comparison.ScoredCell;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Require;

/**
 * What using more than one candidate would gain over the best single one, in points, for other prompts and other raters.
 *
 * <p>A <i>second opinion</i> is the better of two answers to each prompt, as the raters judge on average: \[ g_{pr} = y_{c^*(p), p, r} -
 * y_{bpr} \] with \(b\) the single candidate of the highest mean and \(c^*(p)\) the better of the pair by the grades of the others
 * than rater \(r\), so that nobody's own noise picks the winner that it then rewards. A <i>choice by kind</i> takes for each prompt the
 * candidate that is best on the other prompts of its kind. The gain is the crossed mean of \(g\) ({@link CrossedMean}): a pair's
 * gain can be nothing or less.
 *
 * @param candidates who is used: two, or one a kind in the order of kinds
 * @param kinds      the kind of each, where they are chosen by kind; else empty
 * @param gain       over the best single one
 * @param interval   of the gain
 */
public record Mix(List<String> candidates, List<String> kinds, Estimate gain, Interval interval) {
    public Mix {
        candidates = List.copyOf(candidates);
        kinds = List.copyOf(kinds);
    }

    /** The pair whose second opinions gain most; empty with fewer than three candidates, or without a rater beside another. */
    public static Optional<Mix> bestPair(List<ScoredCell> cells, PromptGroups groups, double level) {
        if (cells.isEmpty()) {
            return Optional.empty();
        }
        ScoreGrid grid = ScoreGrid.of(cells, groups);
        int single = best(means(grid));
        double[][] others = byOthers(grid);
        List<Mix> all = new ArrayList<>();
        for (int i = 0; i < others.length; i++) {
            for (int j = i + 1; j < others.length; j++) {
                double[] first = others[i];
                double[] second = others[j];
                int[] pair = {i, j};
                grid.choosing(place -> better(pair, first[place], second[place]), single)
                        .map(g -> new Mix(names(grid, pair), List.of(), Estimate.of(g.mean()), g.interval(level)))
                        .ifPresent(all::add);
            }
        }
        return all.stream().max(Comparator.comparingDouble(m -> m.gain().value().orElse(Double.NEGATIVE_INFINITY)));
    }

    /** One candidate a kind; empty with one kind. */
    public static Optional<Mix> byKind(List<ScoredCell> cells, PromptGroups groups, double level) {
        if (cells.isEmpty()) {
            return Optional.empty();
        }
        ScoreGrid grid = ScoreGrid.of(cells, groups);
        Map<String, Families> kinds = new TreeMap<>();
        for (int place = 0; place < grid.places(); place++) {
            String prompt = grid.prompts().get(grid.promptOf(place));
            kinds.computeIfAbsent(
                            groups.kindOf().apply(prompt),
                            k -> new Families(grid.candidates().size()))
                    .add(grid, place, groups.familyOf().apply(prompt));
        }
        if (kinds.size() < 2) {
            return Optional.empty();
        }
        int[] chosen = kinds.values().stream().mapToInt(k -> best(k.means())).toArray();
        int[] ofPrompt = new int[grid.prompts().size()];
        Map<String, Map<String, Integer>> without = new TreeMap<>();
        kinds.forEach((kind, families) -> without.put(kind, families.bestOnOthers()));
        for (int p = 0; p < ofPrompt.length; p++) {
            String prompt = grid.prompts().get(p);
            ofPrompt[p] = Require.known(
                    Require.known(without, groups.kindOf().apply(prompt)),
                    groups.familyOf().apply(prompt));
        }
        return grid.choosing(place -> ofPrompt[grid.promptOf(place)], best(means(grid)))
                .map(g -> new Mix(
                        names(grid, chosen), List.copyOf(kinds.keySet()), Estimate.of(g.mean()), g.interval(level)));
    }

    private static List<String> names(ScoreGrid grid, int[] candidates) {
        return IntStream.of(candidates).mapToObj(grid.candidates()::get).toList();
    }

    private static double[] means(ScoreGrid grid) {
        return IntStream.range(0, grid.candidates().size())
                .mapToDouble(grid::plainMean)
                .toArray();
    }

    /** The first of those that are highest, -1 if none is known. */
    private static int best(double[] means) {
        int best = -1;
        for (int c = 0; c < means.length; c++) {
            if (!Double.isNaN(means[c]) && (best < 0 || means[c] > means[best])) {
                best = c;
            }
        }
        return best;
    }

    private static int better(int[] pair, double first, double second) {
        return Double.isNaN(first) || Double.isNaN(second) ? -1 : pair[second > first ? 1 : 0];
    }

    /**
     * The mean of the other raters' scores of a candidate on a place's prompt; not a number if there is none. Added up without the own
     * one, not as the rest of a sum: else its rounding could decide between two who are equal to all others.
     */
    private static double[][] byOthers(ScoreGrid grid) {
        double[][] means = new double[grid.candidates().size()][grid.places()];
        for (int c = 0; c < means.length; c++) {
            int from = 0;
            for (int place = 0; place < means[c].length; place++) {
                if (grid.promptOf(place) != grid.promptOf(from)) {
                    from = place;
                }
                double sum = 0;
                int n = 0;
                for (int other = from;
                        other < means[c].length && grid.promptOf(other) == grid.promptOf(place);
                        other++) {
                    if (other != place && grid.has(c, other)) {
                        sum += grid.score(c, other);
                        n++;
                    }
                }
                means[c][place] = sum / n;
            }
        }
        return means;
    }

    /** The scores of one kind, by family of prompts and candidate. */
    private static final class Families {
        private final int candidates;
        private final Map<String, double[]> sum = new TreeMap<>();
        private final Map<String, int[]> count = new TreeMap<>();

        Families(int candidates) {
            this.candidates = candidates;
        }

        void add(ScoreGrid grid, int place, String family) {
            double[] sums = sum.computeIfAbsent(family, f -> new double[candidates]);
            int[] counts = count.computeIfAbsent(family, f -> new int[candidates]);
            for (int c = 0; c < candidates; c++) {
                if (grid.has(c, place)) {
                    sums[c] += grid.score(c, place);
                    counts[c]++;
                }
            }
        }

        double[] means() {
            double[][] before = before(new ArrayList<>(sum.values()));
            double[][] counts = before(counts());
            return divided(before[sum.size()], counts[sum.size()]);
        }

        private List<double[]> counts() {
            return count.values().stream()
                    .map(c -> IntStream.of(c).asDoubleStream().toArray())
                    .toList();
        }

        /** The best on all families but each one; what comes before it and what comes after it are added, nothing is taken away. */
        Map<String, Integer> bestOnOthers() {
            List<double[]> sums = new ArrayList<>(sum.values());
            List<double[]> counts = new ArrayList<>(counts());
            double[][] sumBefore = before(sums);
            double[][] countBefore = before(counts);
            Collections.reverse(sums);
            Collections.reverse(counts);
            double[][] sumAfter = before(sums);
            double[][] countAfter = before(counts);
            Map<String, Integer> best = new TreeMap<>();
            int at = 0;
            for (String family : sum.keySet()) {
                int after = sum.size() - 1 - at;
                best.put(
                        family,
                        best(divided(
                                added(sumBefore[at], sumAfter[after]), added(countBefore[at], countAfter[after]))));
                at++;
            }
            return best;
        }

        /** Of the first none, one, two … */
        private double[][] before(List<double[]> all) {
            double[][] before = new double[all.size() + 1][candidates];
            for (int i = 0; i < all.size(); i++) {
                before[i + 1] = added(before[i], all.get(i));
            }
            return before;
        }

        private static double[] added(double[] a, double[] b) {
            return IntStream.range(0, a.length).mapToDouble(i -> a[i] + b[i]).toArray();
        }

        private static double[] divided(double[] sums, double[] counts) {
            return IntStream.range(0, sums.length)
                    .mapToDouble(i -> sums[i] / counts[i])
                    .toArray();
        }
    }
}
