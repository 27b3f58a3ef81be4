package org.mossbank.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.mossbank.core.agreement.KrippendorffAlpha;
import org.mossbank.core.agreement.Metric;
import org.mossbank.core.agreement.Rating;
import org.mossbank.core.agreement.RatingMatrix;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Resamples;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** Ordinal alpha with its interval from 1,000 resamples, on 20,000 units × 8 raters and eight times as many, five levels, a tenth missing. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(1)
@Warmup(iterations = 2, time = 5)
@Measurement(iterations = 5, time = 5)
public class AlphaBench {
    private static final int RATERS = 8;
    private static final int HIGHEST = 4;

    @Param({"20000", "160000"})
    private int units;

    private RatingMatrix matrix = RatingMatrix.ofLevels(List.of(), HIGHEST);

    @Setup
    public void prepare() {
        Random random = new Random(1);
        List<Rating> ratings = new ArrayList<>();
        for (int u = 0; u < units; u++) {
            int truth = random.nextInt(HIGHEST + 1);
            for (int r = 0; r < RATERS; r++) {
                if (random.nextDouble() < 0.9) {
                    int level = Math.max(0, Math.min(HIGHEST, truth + random.nextInt(3) - 1));
                    ratings.add(new Rating("u" + u, "r" + r, level));
                }
            }
        }
        matrix = RatingMatrix.ofLevels(ratings, HIGHEST);
    }

    @Benchmark
    public Interval alphaWithInterval() {
        KrippendorffAlpha alpha = KrippendorffAlpha.of(matrix);
        return alpha.bootstrap(Metric.ORDINAL, 1000, Resamples.generator(7)).percentileInterval(0.95);
    }
}
