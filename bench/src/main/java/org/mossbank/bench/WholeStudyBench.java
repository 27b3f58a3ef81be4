package org.mossbank.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.mossbank.core.comparison.PromptGroups;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.core.decision.Evidence;
import org.mossbank.core.robustness.GradedAnswers;
import org.mossbank.core.robustness.Robustness;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/**
 * All that decides and what it hangs on: components, comparisons with the best, every prompt, rater, criterion and kind left out,
 * and 300 weightings; 6 candidates × 200 prompts × 8 raters × 3 criteria, a tenth missing.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.SampleTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(1)
@Warmup(iterations = 3, time = 5)
@Measurement(iterations = 5, time = 5)
public class WholeStudyBench {
    private static final List<String> CRITERIA = List.of("correctness", "idiom", "practice");
    private static final double[] WEIGHTS = {0.5, 0.25, 0.25};

    private GradedAnswers graded = new GradedAnswers.Accumulator(CRITERIA).snapshot(PromptGroups.byKind(p -> ""));
    private List<Evidence.Contender> contenders = List.of();

    @Setup
    public void prepare() {
        Random random = new Random(1);
        GradedAnswers.Accumulator all = new GradedAnswers.Accumulator(CRITERIA);
        List<Evidence.Contender> names = new ArrayList<>();
        for (int c = 0; c < 6; c++) {
            names.add(new Evidence.Contender("c" + c, OptionalDouble.empty()));
            for (int p = 0; p < 200; p++) {
                for (int r = 0; r < 8; r++) {
                    if (random.nextDouble() < 0.9) {
                        for (int k = 0; k < CRITERIA.size(); k++) {
                            all.add("c" + c, "p" + p, "r" + r, c + "/" + p, k, random.nextInt(5), 4, 100);
                        }
                    }
                }
            }
        }
        contenders = names;
        graded = all.snapshot(PromptGroups.byKind(p -> "kind" + Integer.parseInt(p.substring(1)) % 4));
    }

    @Benchmark
    public Robustness robustness() {
        Evidence evidence = new Evidence(
                Evidence.State.CLEAR,
                List.of(new Evidence.AnswerRaters("each", 8)),
                List.of(),
                new Standings(List.of(), List.of()),
                contenders);
        DecisionRule rule = new DecisionRule(
                DecisionRule.FloorOn.ESTIMATE, 5, 3, DecisionRule.TieBreak.NONE, DecisionRule.Strictness.LENIENT);
        return Robustness.of(graded, WEIGHTS, rule, evidence, 0.95).orElseThrow();
    }
}
