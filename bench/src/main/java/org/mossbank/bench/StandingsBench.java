package org.mossbank.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.mossbank.core.comparison.PromptGroups;
import org.mossbank.core.comparison.ScoredCell;
import org.mossbank.core.comparison.Standings;
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

/** Standings with 2,000 resamples of prompts and raters, 6 candidates × 8 raters, a tenth missing; and eight times as many prompts. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(1)
@Warmup(iterations = 2, time = 5)
@Measurement(iterations = 5, time = 5)
public class StandingsBench {
    @Param({"16", "200", "1600"})
    private int prompts;

    private List<ScoredCell> cells = List.of();

    @Setup
    public void prepare() {
        Random random = new Random(1);
        cells = new ArrayList<>();
        for (int p = 0; p < prompts; p++) {
            for (int r = 0; r < 8; r++) {
                for (int c = 0; c < 6; c++) {
                    if (random.nextDouble() < 0.9) {
                        cells.add(new ScoredCell("c" + c, "p" + p, "r" + r, 100 * random.nextDouble()));
                    }
                }
            }
        }
    }

    @Benchmark
    public Standings standings() {
        return Standings.of(
                cells,
                PromptGroups.byKind(prompt -> "kind" + Integer.parseInt(prompt.substring(1)) % 4),
                Standings.Options.USUAL,
                Resamples.generator(7));
    }
}
