package org.mossbank.core.comparison;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.random.RandomGenerator;
import java.util.random.RandomGenerator.SplittableGenerator;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.estimate.Resamples;

/**
 * Standings of all candidates and the differences between each two, with intervals that say what other prompts and other
 * raters of the same sort might have given.
 *
 * <p>\[ w^*_{cpr} = w^*_p \, w^*_r, \quad w^*_p = \frac{n}{n - 1} \, m_p, \; (m_1 \dots m_n) \sim
 * \mathrm{Multinomial}(n - 1; 1/n \dots 1/n) \]
 *
 * <p>Both prompts (within their kind, variants of a prompt together) and raters are resampled with replacement, a cell weighing the product of its
 * prompt's and its rater's weight (the pigeonhole bootstrap). From n of a kind n - 1 are drawn and weighted n / (n - 1):
 * with few prompts a kind or few raters a plain draw of n makes intervals too short by the factor (n - 1) / n. Kinds with
 * a single prompt are drawn together.
 *
 * <p>Intervals are percentile intervals, widened where needed to hold the estimate itself. Simulated with three raters or
 * more and two prompts of a kind or more, 94 to 97 % of the 95 % intervals for differences hold the true one; see the
 * decision record on intervals of standings.
 *
 * <p>Sources: A. Owen (2007), The pigeonhole bootstrap, <i>Annals of Applied Statistics</i> 1(2), 386-411,
 * doi:10.1214/07-AOAS122; J. Rao and C. Wu (1988), Resampling inference with complex survey data, <i>JASA</i> 83(401),
 * 231-241, doi:10.1080/01621459.1988.10478591.
 *
 * @param standings   highest adjusted mean first; undefined ones last
 * @param differences for each pair of candidates, in the order of standings; empty if they are undefined
 */
public record Standings(List<Standing> standings, List<Difference> differences) {
    public Standings {
        standings = List.copyOf(standings);
        differences = List.copyOf(differences);
    }

    /**
     * How to resample.
     *
     * @param resamples at least 1; 2,000 for a decision
     * @param level     confidence level of the intervals
     */
    public record Options(int resamples, double level) {
        public static final Options USUAL = new Options(2000, 0.95);

        /** @throws IllegalArgumentException if there are no resamples or the level is no proportion */
        public Options {
            Require.atLeast("resamples", 1, resamples);
            Require.proportion("level", level);
        }
    }

    /** @param cells any order */
    public static Standings of(
            List<ScoredCell> cells, PromptGroups groups, Options options, SplittableGenerator random) {
        if (cells.isEmpty()) {
            return new Standings(List.of(), List.of());
        }
        Map<String, List<ScoredCell>> byCandidate =
                cells.stream().collect(Collectors.groupingBy(ScoredCell::candidate, TreeMap::new, Collectors.toList()));
        Design design = new Design(cells);
        Optional<double[]> point = design.weightedMeans(
                Design.ones(design.prompts().size()),
                Design.ones(design.raters().size()));
        if (point.isEmpty()) {
            return unconnected(byCandidate);
        }
        Reading reading =
                new Reading(design, point.get(), byCandidate, replicates(design, groups, options, random), options);
        return reading.standings();
    }

    private static Standings unconnected(Map<String, List<ScoredCell>> byCandidate) {
        Estimate none = Estimate.undefined(Reason.NOT_CONNECTED);
        return new Standings(
                byCandidate.entrySet().stream()
                        .map(e -> new Standing(
                                e.getKey(),
                                none,
                                Interval.undefined(Reason.NOT_CONNECTED),
                                plainMean(e.getValue()),
                                e.getValue().size(),
                                none))
                        .toList(),
                List.of());
    }

    private static Estimate plainMean(List<ScoredCell> cells) {
        return Estimate.of(
                cells.stream().mapToDouble(ScoredCell::score).average().orElseThrow());
    }

    /** One row a defined resample, one mean a candidate; empty when there is nothing to resample. */
    private static double[][] replicates(
            Design design, PromptGroups groups, Options options, SplittableGenerator random) {
        List<List<int[]>> strata = groups.strata(design.prompts());
        boolean nothingToDraw = strata.stream().allMatch(families -> families.size() < 2);
        if (nothingToDraw || design.raters().size() < 2) {
            return new double[0][];
        }
        List<List<int[]>> raters = List.of(IntStream.range(0, design.raters().size())
                .mapToObj(r -> new int[] {r})
                .toList());
        return Resamples.drawAll(
                        options.resamples(),
                        random,
                        child -> design.weightedMeans(
                                weights(strata, design.prompts().size(), child),
                                weights(raters, design.raters().size(), child)))
                .stream()
                .flatMap(Optional::stream)
                .toArray(double[][]::new);
    }

    private static double[] weights(List<List<int[]>> strata, int size, RandomGenerator random) {
        double[] weights = new double[size];
        for (List<int[]> families : strata) {
            int draws = families.size() - 1;
            for (int i = 0; i < draws; i++) {
                for (int member : families.get(random.nextInt(families.size()))) {
                    weights[member] += families.size() / (double) draws;
                }
            }
        }
        return weights;
    }

    /** Turns point estimates and resamples into what is shown. */
    private static final class Reading {
        private final Design design;
        private final double[] point;
        private final Map<String, List<ScoredCell>> byCandidate;
        private final double[][] replicates;
        private final Options options;

        Reading(
                Design design,
                double[] point,
                Map<String, List<ScoredCell>> byCandidate,
                double[][] replicates,
                Options options) {
            this.design = design;
            this.point = point;
            this.byCandidate = byCandidate;
            this.replicates = replicates;
            this.options = options;
        }

        Standings standings() {
            List<Integer> order = IntStream.range(0, point.length)
                    .boxed()
                    .sorted(Comparator.<Integer>comparingDouble(c -> -point[c]).thenComparing(design.candidates()::get))
                    .toList();
            double[] best = chancesOfBest();
            List<Standing> standings = order.stream()
                    .map(c -> {
                        String name = design.candidates().get(c);
                        return new Standing(
                                name,
                                Estimate.of(point[c]),
                                interval(resamples(r -> r[c]), point[c], options.level()),
                                plainMean(Require.known(byCandidate, name)),
                                Require.known(byCandidate, name).size(),
                                best.length == 0
                                        ? Estimate.undefined(Reason.TOO_FEW_TO_RESAMPLE)
                                        : Estimate.of(best[c]));
                    })
                    .toList();
            return new Standings(standings, differences(order));
        }

        private Resamples resamples(java.util.function.ToDoubleFunction<double[]> value) {
            return Resamples.of(Arrays.stream(replicates).mapToDouble(value).toArray());
        }

        private Interval interval(Resamples resamples, double estimate, double level) {
            if (replicates.length == 0) {
                return Interval.undefined(Reason.TOO_FEW_TO_RESAMPLE);
            }
            if (resamples.percentileInterval(level) instanceof Interval.Bounds b) {
                return new Interval.Bounds(Math.min(estimate, b.low()), Math.max(estimate, b.high()), level);
            }
            return Interval.undefined(Reason.UNDEFINED_IN_EVERY_RESAMPLE);
        }

        private double[] chancesOfBest() {
            if (replicates.length == 0) {
                return new double[0];
            }
            double[] chance = new double[point.length];
            for (double[] replicate : replicates) {
                double highest = Arrays.stream(replicate).max().orElseThrow();
                long ties = Arrays.stream(replicate).filter(v -> v == highest).count();
                for (int c = 0; c < chance.length; c++) {
                    if (replicate[c] == highest) {
                        chance[c] += 1.0 / ties;
                    }
                }
            }
            return Arrays.stream(chance).map(x -> x / replicates.length).toArray();
        }

        private List<Difference> differences(List<Integer> order) {
            List<int[]> pairs = new ArrayList<>();
            for (int i = 0; i < order.size(); i++) {
                for (int j = i + 1; j < order.size(); j++) {
                    pairs.add(new int[] {order.get(i), order.get(j)});
                }
            }
            List<Resamples> draws =
                    pairs.stream().map(p -> resamples(r -> r[p[0]] - r[p[1]])).toList();
            double[] p = draws.stream().mapToDouble(Reading::twoSided).toArray();
            double[] adjusted = Holm.adjust(p);
            int[] rank = Holm.ranks(p);
            List<Difference> differences = new ArrayList<>();
            for (int i = 0; i < pairs.size(); i++) {
                double estimate = point[pairs.get(i)[0]] - point[pairs.get(i)[1]];
                double holmLevel = 1 - (1 - options.level()) / (pairs.size() - rank[i]);
                differences.add(new Difference(
                        design.candidates().get(pairs.get(i)[0]),
                        design.candidates().get(pairs.get(i)[1]),
                        Estimate.of(estimate),
                        interval(draws.get(i), estimate, options.level()),
                        interval(draws.get(i), estimate, holmLevel),
                        replicates.length == 0
                                ? Estimate.undefined(Reason.TOO_FEW_TO_RESAMPLE)
                                : Estimate.of(adjusted[i])));
            }
            return differences;
        }

        /** Twice the smaller tail; one is added to both counts, so that it is never 0. */
        private static double twoSided(Resamples draws) {
            int n = draws.defined();
            if (n == 0) {
                return 1;
            }
            double tail = Math.min(draws.shareAtMost(0), draws.shareAtLeast(0));
            return Math.min(1, 2 * (tail * n + 1) / (n + 1));
        }
    }
}
