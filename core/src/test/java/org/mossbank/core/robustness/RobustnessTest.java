package org.mossbank.core.robustness;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.OptionalDouble;
import java.util.Random;
import org.mossbank.core.comparison.PromptGroups;
import org.mossbank.core.comparison.ScoreGrid;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.core.decision.Evidence;
import org.mossbank.core.decision.Outcome;
import org.mossbank.core.rubric.CriterionGrade;
import org.mossbank.core.rubric.Gate;
import org.mossbank.core.rubric.OverallScore;
import org.testng.annotations.Test;

public class RobustnessTest {
    private static final List<String> CRITERIA = List.of("correctness", "idiom");
    private static final double[] WEIGHTS = {0.5, 0.5};
    private static final PromptGroups KINDS = PromptGroups.byKind(p -> p.substring(0, 1));
    private static final DecisionRule RULE = new DecisionRule(
            DecisionRule.FloorOn.ESTIMATE, 5, 1, DecisionRule.TieBreak.NONE, DecisionRule.Strictness.LENIENT);

    /** What level a candidate gets on a criterion of a prompt. */
    private interface Levels {
        int of(String candidate, String prompt, int rater, int criterion);
    }

    private static GradedAnswers graded(int promptsAKind, Levels levels) {
        GradedAnswers.Accumulator all = new GradedAnswers.Accumulator(CRITERIA);
        for (String candidate : List.of("a", "b", "c")) {
            for (int p = 0; p < 2 * promptsAKind; p++) {
                String prompt = (p % 2 == 0 ? "x" : "y") + p;
                for (int r = 0; r < 3; r++) {
                    for (int k = 0; k < 2; k++) {
                        int level = levels.of(candidate, prompt, r, k);
                        all.add(candidate, prompt, "r" + r, candidate + prompt, k, level, 4, 100);
                    }
                }
            }
        }
        return all.snapshot(KINDS);
    }

    private static Robustness of(GradedAnswers graded) {
        Evidence evidence = new Evidence(
                Evidence.State.CLEAR,
                List.of(new Evidence.AnswerRaters("any", 3)),
                List.of(),
                new Standings(List.of(), List.of()),
                List.of("a", "b", "c").stream()
                        .map(c -> new Evidence.Contender(c, OptionalDouble.empty()))
                        .toList());
        return Robustness.of(graded, WEIGHTS, RULE, evidence, 0.95).orElseThrow();
    }

    private static int noise(String candidate, String prompt, int rater, int criterion) {
        return new Random((candidate + prompt + rater + criterion).hashCode() * 31L).nextInt(2);
    }

    @Test
    public void aClearLeadHangsOnNothing() {
        Robustness robustness = of(graded(8, (c, p, r, k) -> (c.equals("a") ? 3 : 1) + noise(c, p, r, k)));

        assertThat(robustness.whole().best()).contains("a");
        assertThat(robustness.without()).noneMatch(Robustness.Without::changes);
        assertThat(robustness.same()).isEqualTo(1);
        assertThat(robustness.best()).containsOnlyKeys("a");
        assertThat(robustness.out()).containsOnlyKeys("b", "c");
    }

    @Test
    public void itIsSaidWhatEverythingHangsOn() {
        // Ahead on idiom alone: without it, and where correctness is nearly all, nobody is.
        Robustness robustness =
                of(graded(8, (c, p, r, k) -> k == 1 && c.equals("a") ? 3 + noise(c, p, r, k) : 1 + noise(c, p, r, k)));

        assertThat(robustness.whole().best()).contains("a");
        assertThat(robustness.without().get(0).changes()).isTrue();
        assertThat(robustness.without())
                .filteredOn(Robustness.Without::changes)
                .extracting(Robustness.Without::name)
                .contains("idiom");
        assertThat(robustness.same()).isBetween(0.5, 0.99);
        Robustness.Along idiom = robustness.along().get(1);
        assertThat(idiom.criterion()).isEqualTo("idiom");
        assertThat(idiom.points().get(0).changes()).isTrue();
        assertThat(idiom.points().get(20).says().best()).contains("a");
        assertThat(idiom.points())
                .extracting(Robustness.Point::weight)
                .isSorted()
                .hasSize(21);
    }

    @Test
    public void oneRaterMayCarryTheLead() {
        Robustness robustness =
                of(graded(8, (c, p, r, k) -> (c.equals("a") && r == 0 ? 3 : 1) + (r == 0 ? 0 : noise("", p, 0, k))));

        assertThat(robustness.without())
                .filteredOn(
                        w -> w.factor() == Robustness.Factor.RATER && w.name().equals("r0"))
                .allSatisfy(w -> assertThat(w.says().best()).isEmpty());
        assertThat(robustness.without())
                .extracting(Robustness.Without::factor)
                .contains(
                        Robustness.Factor.PROMPT,
                        Robustness.Factor.RATER,
                        Robustness.Factor.KIND,
                        Robustness.Factor.CRITERION);
    }

    /** One of 240 prompts is unlike all others: it is among the 200 that are left out. */
    @Test
    public void ofManyPromptsTheMostUnusualAreLeftOut() {
        Robustness robustness =
                of(graded(120, (c, p, r, k) -> p.equals("y239") ? (c.equals("c") ? 4 : 0) : c.equals("a") ? 3 : 2));
        assertThat(robustness.without())
                .filteredOn(w -> w.factor() == Robustness.Factor.PROMPT)
                .hasSize(Robustness.MOST_PROMPTS)
                .extracting(Robustness.Without::name)
                .contains("y239");
    }

    @Test
    public void weightsLieEvenlyOnTheSimplex() {
        for (int criteria = 2; criteria <= 6; criteria++) {
            List<double[]> lattice = Robustness.lattice(criteria);
            assertThat(lattice).hasSizeBetween(50, 300);
            assertThat(lattice)
                    .allSatisfy(w -> assertThat(Arrays.stream(w).sum()).isCloseTo(1, within(1e-12)));
            double mean = lattice.stream().mapToDouble(w -> w[0]).average().orElseThrow();
            // by hand: each criterion weighs 1 / K on average over the simplex
            assertThat(mean).isCloseTo(1.0 / criteria, within(1e-12));
        }
        assertThat(Robustness.lattice(1)).isEmpty();
    }

    /** The same scores as are worked out grade by grade, gate and what was not applicable included. */
    @Test
    public void scoresAreThoseOfTheRubric() {
        Random random = new Random(3);
        Gate gate = new Gate(1, 40);
        double[] weights = {0.7, 0.3};
        GradedAnswers.Accumulator all = new GradedAnswers.Accumulator(CRITERIA);
        List<Double> expected = new ArrayList<>();
        for (int p = 0; p < 40; p++) {
            List<CriterionGrade> grades = new ArrayList<>();
            int correct = random.nextInt(5);
            CriterionGrade gated = gate.apply(CriterionGrade.of(weights[0], correct, 4));
            grades.add(gated);
            String prompt = String.format("p%02d", p);
            all.add("a", prompt, "r", prompt, 0, correct, 4, gated.cap());
            if (p % 3 > 0) {
                int idiom = random.nextInt(2);
                grades.add(CriterionGrade.of(weights[1], idiom, 1));
                all.add("a", prompt, "r", prompt, 1, idiom, 1, 100);
            }
            expected.add(OverallScore.of(grades).orElseThrow());
        }
        GradedAnswers graded = all.snapshot(KINDS);
        for (ScoreGrid grid : List.of(
                graded.grid(weights).orElseThrow(),
                graded.weighing().grid(weights).orElseThrow())) {
            assertThat(Standings.of(
                                    grid,
                                    new Standings.Options(0, 0.95),
                                    org.mossbank.core.estimate.Resamples.generator(1))
                            .standings()
                            .get(0)
                            .plain()
                            .value()
                            .orElseThrow())
                    .isCloseTo(expected.stream().mapToDouble(x -> x).average().orElseThrow(), within(1e-9));
        }
        // With all the weight on what was not applicable to some, those have no score.
        assertThat(graded.weighing().grid(0, 1).orElseThrow().places()).isEqualTo(26);
    }

    @Test
    public void nothingGradedIsNothingToTry() {
        assertThat(Robustness.of(
                        new GradedAnswers.Accumulator(CRITERIA).snapshot(KINDS),
                        WEIGHTS,
                        RULE,
                        new Evidence(
                                Evidence.State.CLEAR,
                                List.of(),
                                List.of(),
                                new Standings(List.of(), List.of()),
                                List.of()),
                        0.95))
                .isEmpty();
    }

    @Test
    public void anOutcomeIsComparedByWhatItSays() {
        Statement one = new Statement(
                Outcome.SAFE_CHOICES,
                java.util.Optional.empty(),
                new java.util.TreeSet<>(List.of("a")),
                new java.util.TreeSet<>(List.of("b")));
        Statement other = new Statement(
                Outcome.SAFE_CHOICES,
                java.util.Optional.empty(),
                new java.util.TreeSet<>(List.of("a", "b")),
                new java.util.TreeSet<>());
        assertThat(one.saysAsMuchAs(other)).isFalse();
        assertThat(one.saysAsMuchAs(one)).isTrue();
    }
}
