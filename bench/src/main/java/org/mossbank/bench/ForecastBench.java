package org.mossbank.bench;

import java.util.List;
import java.util.concurrent.TimeUnit;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.core.estimate.Resamples;
import org.mossbank.core.planning.Forecast;
import org.mossbank.core.planning.GradingModel;
import org.mossbank.core.planning.PlannedStudy;
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

/** The planner's chances at four leads: 16 prompts × 5 candidates × 5 raters, first figures and all of them. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(1)
@Warmup(iterations = 2, time = 5)
@Measurement(iterations = 5, time = 5)
public class ForecastBench {
    private static final DecisionRule RULE = new DecisionRule(
            DecisionRule.FloorOn.UPPER_LIMIT, 5, 3, DecisionRule.TieBreak.NONE, DecisionRule.Strictness.LENIENT);

    @Param({"60", "800"})
    private int studies;

    @Benchmark
    public Forecast forecast() {
        return Forecast.of(
                new PlannedStudy(List.of(4, 4, 4, 4), 5, 1, 5, 5),
                new Forecast.Terms(GradingModel.MIDDLING, RULE, 0.67),
                studies,
                Resamples.generator(1));
    }
}
