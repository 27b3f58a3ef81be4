package org.mossbank.core.comparison;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.random.RandomGenerator;
import java.util.random.RandomGenerator.SplittableGenerator;
import java.util.stream.IntStream;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.estimate.Resamples;
import org.mossbank.core.rubric.OverallScore;

/**
 * Standings of all candidates and the differences between each two, with intervals that say what other prompts and other
 * raters of the same sort might have given.
 *
 * <p>A candidate stands at its mean adjusted for prompts and raters ({@link AdditiveModel}), give or take what the {@link CrossedMean}
 * of its own cells may be off. A difference is the crossed mean of what lies between two candidates in the cells that both
 * have: \( d_{pr} = y_{apr} - y_{bpr} \), its variance drawn towards that of the other pairs ({@link PairVariances}). Limits of standings are cut at 0 and 100 where all scores lie
 * within them. Where prompts and raters fall into teams that share neither, candidates stand at their own crossed means; that all
 * of them were graded by both teams keeps it fair.
 *
 * <p>p values of pairs are corrected after Holm (1979); the corrected interval of a rejected pair is at its own step's level, of
 * all from the first that is not rejected at that step's, so that interval and p never contradict each other. They hold each by
 * itself and not all at once. Nothing of this is drawn at random.
 *
 * <p>The chance of standing highest is the share of resamples in which a candidate does: prompts (within their kind, variants of
 * a prompt together) and raters are drawn with replacement at once, a cell weighing the product of both weights (the pigeonhole
 * bootstrap): \[ w^*_{cpr} = w^*_p \, w^*_r, \quad w^*_p = \frac{n}{n - 1} \, m_p, \; (m_1 \dots m_n) \sim
 * \mathrm{Multinomial}(n - 1; 1/n \dots 1/n) \] Kinds with a single prompt are drawn together. Nothing is decided by it.
 *
 * <p>Sources: those of {@link CrossedMean} and {@link Holm}; A. Owen (2007), The pigeonhole bootstrap, <i>Annals of Applied
 * Statistics</i> 1(2), 386-411, doi:10.1214/07-AOAS122; J. Rao and C. Wu (1988), Resampling inference with complex survey data,
 * <i>JASA</i> 83(401), 231-241, doi:10.1080/01621459.1988.10478591.
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
     * @param resamples for the chance of standing highest; none leave it undefined
     * @param level     confidence level of the intervals
     */
    public record Options(int resamples, double level) {
        public static final Options USUAL = new Options(2000, 0.95);

        /** @throws IllegalArgumentException if there are fewer resamples than none or the level is no proportion */
        public Options {
            Require.atLeast("resamples", 0, resamples);
            Require.proportion("level", level);
        }
    }

    /**
     * The differences alone, without chances of standing highest: what decides, and nothing that is drawn.
     *
     * @param cells any order
     * @param level confidence level of the intervals
     */
    public static List<Difference> differences(List<ScoredCell> cells, PromptGroups groups, double level) {
        return cells.isEmpty() ? List.of() : differences(ScoreGrid.of(cells, groups), level);
    }

    /** The same of numbered scores; grids at the same places share what follows from them. */
    public static List<Difference> differences(ScoreGrid grid, double level) {
        return forDeciding(grid, level).differences();
    }

    /** Standings whose own intervals are left out, and chances of standing highest: the differences decide, and are all there. */
    public static Standings forDeciding(ScoreGrid grid, double level) {
        return of(grid, new Options(0, level), Resamples.generator(0), false);
    }

    /** @param cells any order */
    public static Standings of(
            List<ScoredCell> cells, PromptGroups groups, Options options, SplittableGenerator random) {
        return cells.isEmpty() ? new Standings(List.of(), List.of()) : of(ScoreGrid.of(cells, groups), options, random);
    }

    /** The same of numbered scores. */
    public static Standings of(ScoreGrid grid, Options options, SplittableGenerator random) {
        return of(grid, options, random, true);
    }

    private static Standings of(ScoreGrid grid, Options options, SplittableGenerator random, boolean withIntervals) {
        Optional<double[]> point = grid.adjustedMeans();
        if (point.isPresent()) {
            return new Reading(grid, point.get(), replicates(grid, options, random), options, withIntervals)
                    .standings();
        }
        Reading apart = new Reading(grid, ownMeans(grid), new double[0][], options, withIntervals);
        return apart.comparesAll() ? apart.standings() : unconnected(grid);
    }

    /** Of teams of raters that share no prompt none can be told to be stricter; each candidate then stands at its own mean. */
    private static double[] ownMeans(ScoreGrid grid) {
        return IntStream.range(0, grid.candidates().size())
                .mapToDouble(c -> grid.own(c).mean())
                .toArray();
    }

    private static Standings unconnected(ScoreGrid grid) {
        Estimate none = Estimate.undefined(Reason.NOT_CONNECTED);
        return new Standings(
                IntStream.range(0, grid.candidates().size())
                        .mapToObj(c -> new Standing(
                                grid.candidates().get(c),
                                none,
                                Interval.undefined(Reason.NOT_CONNECTED),
                                Estimate.of(grid.plainMean(c)),
                                grid.count(c),
                                none))
                        .toList(),
                List.of());
    }

    /** One row a defined resample, one mean a candidate; empty when there is nothing to resample. */
    private static double[][] replicates(ScoreGrid grid, Options options, SplittableGenerator random) {
        if (options.resamples() == 0) {
            return new double[0][];
        }
        List<List<int[]>> strata = grid.groups().strata(grid.prompts());
        boolean nothingToDraw = strata.stream().allMatch(families -> families.size() < 2);
        int raterCount = grid.raters().size();
        if (nothingToDraw || raterCount < 2) {
            return new double[0][];
        }
        AdditiveModel model = grid.model();
        List<List<int[]>> raters = List.of(
                IntStream.range(0, raterCount).mapToObj(r -> new int[] {r}).toList());
        return Resamples.drawAll(
                        options.resamples(),
                        random,
                        child -> model.means(
                                weights(strata, grid.prompts().size(), child), weights(raters, raterCount, child)))
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
        private final ScoreGrid grid;
        private final double[] point;
        private final double[][] replicates;
        private final Options options;
        private final boolean withIntervals;
        /** Whether every score is one of 0 to 100. */
        private final boolean bounded;

        Reading(ScoreGrid grid, double[] point, double[][] replicates, Options options, boolean withIntervals) {
            this.withIntervals = withIntervals;
            this.grid = grid;
            this.bounded = withIntervals && grid.liesWithin(OverallScore.HIGHEST);
            this.point = point;
            this.replicates = replicates;
            this.options = options;
        }

        /** Whether every two candidates have a cell in common. */
        boolean comparesAll() {
            return IntStream.range(0, point.length)
                    .allMatch(i -> IntStream.range(0, i)
                            .allMatch(j -> grid.between(i, j).isPresent()));
        }

        Standings standings() {
            List<Integer> order = IntStream.range(0, point.length)
                    .boxed()
                    .sorted(Comparator.<Integer>comparingDouble(c -> -point[c]).thenComparing(this::name))
                    .toList();
            double[] best = chancesOfBest();
            List<Standing> standings = order.stream()
                    .map(c -> new Standing(
                            name(c),
                            Estimate.of(point[c]),
                            interval(c),
                            Estimate.of(grid.plainMean(c)),
                            grid.count(c),
                            best.length == 0 ? Estimate.undefined(Reason.TOO_FEW_TO_RESAMPLE) : Estimate.of(best[c])))
                    .toList();
            return new Standings(standings, differences(order));
        }

        private Interval interval(int candidate) {
            if (!withIntervals) {
                return Interval.undefined(Reason.NOT_ASKED);
            }
            Interval whole = grid.own(candidate).intervalAbout(point[candidate], options.level());
            return bounded && whole instanceof Interval.Bounds b
                    ? new Interval.Bounds(cut(b.low()), cut(b.high()), options.level())
                    : whole;
        }

        /** Both limits to both ends: adjusted for a hard prompt, even a mean may pass 100. */
        private static double cut(double limit) {
            return Math.max(0, Math.min(OverallScore.HIGHEST, limit));
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
            List<Optional<CrossedMean>> own =
                    pairs.stream().map(p -> grid.between(p[0], p[1])).toList();
            PairVariances common =
                    PairVariances.of(own.stream().flatMap(Optional::stream).toList());
            List<Optional<CrossedMean>> means =
                    own.stream().map(m -> m.map(mean -> mean.with(common))).toList();
            Holm.Steps steps = Holm.steps(
                    means.stream()
                            .map(m -> m.map(CrossedMean::p).orElse(Estimate.undefined(Reason.NOTHING_IN_COMMON)))
                            .toList(),
                    1 - options.level());
            List<Difference> differences = new ArrayList<>();
            for (int i = 0; i < pairs.size(); i++) {
                int[] pair = pairs.get(i);
                differences.add(
                        means.get(i).isPresent()
                                ? difference(
                                        pair,
                                        means.get(i).get(),
                                        steps.adjusted().get(i),
                                        1 - steps.level(i))
                                : apart(pair));
            }
            return differences;
        }

        private String name(int candidate) {
            return grid.candidates().get(candidate);
        }

        private Difference difference(int[] pair, CrossedMean mean, Estimate adjustedP, double holmLevel) {
            return new Difference(
                    name(pair[0]),
                    name(pair[1]),
                    Estimate.of(mean.mean()),
                    mean.standardError(),
                    mean.freedom(),
                    mean.interval(options.level()),
                    mean.interval(holmLevel),
                    adjustedP,
                    mean.intervalHere(options.level()));
        }

        /** No cell in common: the adjusted means still lie apart, and how sure that is cannot be told. */
        private Difference apart(int[] pair) {
            Estimate none = Estimate.undefined(Reason.NOTHING_IN_COMMON);
            Interval noInterval = Interval.undefined(Reason.NOTHING_IN_COMMON);
            return new Difference(
                    name(pair[0]),
                    name(pair[1]),
                    Estimate.of(point[pair[0]] - point[pair[1]]),
                    none,
                    0,
                    noInterval,
                    noInterval,
                    none,
                    noInterval);
        }
    }
}
