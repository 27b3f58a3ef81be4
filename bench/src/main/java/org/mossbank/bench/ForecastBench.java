package org.mossbank.bench;

import java.util.List;
import java.util.concurrent.TimeUnit;
import org.mossbank.core.estimate.Resamples;
import org.mossbank.core.planning.Forecast;
import org.mossbank.core.planning.PlannedStudy;
import org.mossbank.core.planning.Spread;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** The planner's forecast for one size: 16 prompts × 5 candidates × 5 raters, all or three of them on each answer. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(1)
@Warmup(iterations = 2, time = 5)
@Measurement(iterations = 5, time = 5)
public class ForecastBench {
    @Param({"3", "5"})
    private int ratersAnAnswer;

    @Benchmark
    public Forecast forecast() {
        return Forecast.of(
                new PlannedStudy(List.of(4, 4, 4, 4), 5, 1, 5, ratersAnAnswer),
                Spread.USUAL,
                5,
                Forecast.Effort.QUICK,
                Resamples.generator(1));
    }
}
