package org.mossbank.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.mossbank.core.comparison.Difference;
import org.mossbank.core.comparison.PromptGroups;
import org.mossbank.core.comparison.ScoredCell;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.comparison.WithBest;
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

/** What decides: differences from components, and each candidate against the best; 6 candidates × 8 raters, 10 % missing. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(1)
@Warmup(iterations = 2, time = 5)
@Measurement(iterations = 5, time = 5)
public class DecidingBench {
    private static final int CANDIDATES = 6;

    @Param({"16", "200"})
    private int prompts;

    private List<ScoredCell> cells = List.of();
    private List<String> names = List.of();

    @Setup
    public void prepare() {
        Random random = new Random(1);
        cells = new ArrayList<>();
        for (int p = 0; p < prompts; p++) {
            for (int r = 0; r < 8; r++) {
                for (int c = 0; c < CANDIDATES; c++) {
                    if (random.nextDouble() < 0.9) {
                        cells.add(new ScoredCell("c" + c, "p" + p, "r" + r, 100 * random.nextDouble()));
                    }
                }
            }
        }
        names = List.of("c0", "c1", "c2", "c3", "c4", "c5");
    }

    @Benchmark
    public WithBest field() {
        List<Difference> differences = Standings.differences(
                cells, PromptGroups.byKind(prompt -> "kind" + Integer.parseInt(prompt.substring(1)) % 4), 0.95);
        return WithBest.of(names, differences, 0.05);
    }
}
