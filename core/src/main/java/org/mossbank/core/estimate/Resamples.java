package org.mossbank.core.estimate;

import java.util.Arrays;
import java.util.function.Function;
import java.util.function.ToDoubleFunction;
import java.util.random.RandomGenerator;
import java.util.random.RandomGenerator.SplittableGenerator;
import java.util.random.RandomGeneratorFactory;
import java.util.stream.IntStream;

/**
 * The distribution of a statistic over resamples, sorted. Resamples in which it is undefined are counted and left out.
 *
 * <p>Each replicate has its own child generator, split off in order before the work is spread over threads: the result
 * hangs on the seed alone.
 */
public final class Resamples {
    private static final String ALGORITHM = "L64X128MixRandom";

    /** Kept, as looking the algorithm up takes longer than a small study's figures. */
    private static final RandomGeneratorFactory<SplittableGenerator> GENERATORS = RandomGeneratorFactory.of(ALGORITHM);

    private final double[] sorted;
    private final int undefined;

    private Resamples(double[] values) {
        double[] defined =
                Arrays.stream(values).filter(v -> !Double.isNaN(v)).sorted().toArray();
        this.sorted = defined;
        this.undefined = values.length - defined.length;
    }

    /** A generator for a seed; the same seed gives the same numbers on every machine. */
    public static SplittableGenerator generator(long seed) {
        return GENERATORS.create(seed);
    }

    /**
     * Draws {@code count} replicates.
     *
     * @param statistic computes one replicate from its own generator; NaN says undefined
     */
    public static Resamples draw(int count, SplittableGenerator random, ToDoubleFunction<RandomGenerator> statistic) {
        double[] values = new double[count];
        forEach(count, random, (i, child) -> values[i] = statistic.applyAsDouble(child));
        return new Resamples(values);
    }

    /** Draws {@code count} replicates of any kind, in parallel, in the order of their generators. */
    public static <T> java.util.List<T> drawAll(
            int count, SplittableGenerator random, Function<RandomGenerator, T> replicate) {
        SplittableGenerator[] children = children(count, random);
        return IntStream.range(0, count)
                .parallel()
                .mapToObj(i -> replicate.apply(children[i]))
                .toList();
    }

    /** Takes values that were computed elsewhere; NaN says undefined. */
    public static Resamples of(double... values) {
        return new Resamples(values);
    }

    private interface Replicate {
        void run(int index, RandomGenerator random);
    }

    private static void forEach(int count, SplittableGenerator random, Replicate replicate) {
        SplittableGenerator[] children = children(count, random);
        IntStream.range(0, count).parallel().forEach(i -> replicate.run(i, children[i]));
    }

    private static SplittableGenerator[] children(int count, SplittableGenerator random) {
        Require.atLeast("count", 1, count);
        SplittableGenerator[] children = new SplittableGenerator[count];
        for (int i = 0; i < count; i++) {
            children[i] = random.split();
        }
        return children;
    }

    public int defined() {
        return sorted.length;
    }

    public int undefined() {
        return undefined;
    }

    /** Share of the defined replicates for which the value is at most {@code limit}. */
    public double shareAtMost(double limit) {
        return Arrays.stream(sorted).filter(v -> v <= limit).count() / (double) sorted.length;
    }

    /** Share of the defined replicates for which the value is at least {@code limit}. */
    public double shareAtLeast(double limit) {
        return Arrays.stream(sorted).filter(v -> v >= limit).count() / (double) sorted.length;
    }

    /**
     * The percentile interval.
     *
     * <p>\[ [\, q_{(1 - \lambda) / 2}, \; q_{(1 + \lambda) / 2} \,] \] with \(q_p\) the quantile of the defined replicates; in
     * the unit of the statistic, undefined if no replicate is defined.
     *
     * <p>Source: B. Efron and R. Tibshirani (1993), <i>An Introduction to the Bootstrap</i>, ch. 13.
     *
     * @param level confidence level, for example 0.95
     */
    public Interval percentileInterval(double level) {
        Require.proportion("level", level);
        if (sorted.length == 0) {
            return Interval.undefined(Reason.UNDEFINED_IN_EVERY_RESAMPLE);
        }
        return new Interval.Bounds(quantile((1 - level) / 2), quantile((1 + level) / 2), level);
    }

    /**
     * Quantile by linear interpolation of the sorted values.
     *
     * <p>\[ q_p = x_{(j)} + (h - j) (x_{(j + 1)} - x_{(j)}), \quad h = (B - 1) p, \; j = \lfloor h \rfloor \] counted from 0.
     *
     * <p>Source: R. Hyndman and Y. Fan (1996), Sample quantiles in statistical packages, <i>The American
     * Statistician</i> 50(4), 361-365, type 7, doi:10.1080/00031305.1996.10473566.
     */
    private double quantile(double p) {
        double position = (sorted.length - 1) * p;
        int below = (int) Math.floor(position);
        int above = Math.min(below + 1, sorted.length - 1);
        // At equal neighbours no arithmetic, so that rounding cannot push a limit past a tie.
        return sorted[below] == sorted[above]
                ? sorted[below]
                : sorted[below] + (position - below) * (sorted[above] - sorted[below]);
    }
}
