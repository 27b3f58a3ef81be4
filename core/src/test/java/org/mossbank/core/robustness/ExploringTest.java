package org.mossbank.core.robustness;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.OptionalDouble;
import java.util.Random;
import java.util.function.BiPredicate;
import org.mossbank.core.comparison.PromptGroups;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.decision.Allowance;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.core.decision.Evidence;
import org.mossbank.core.decision.Outcome;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What a rule would say otherwise is what it says of the same grades put to it in the first place. */
public class ExploringTest {
    private static final double LEVEL = 0.95;
    private static final PromptGroups KINDS = PromptGroups.byKind(p -> p.substring(0, 1));
    private static final DecisionRule RULE = new DecisionRule(
            DecisionRule.FloorOn.ESTIMATE, 5, 1, DecisionRule.TieBreak.NONE, DecisionRule.Strictness.LENIENT);
    private static final BiPredicate<String, String> ALL = (prompt, rater) -> true;

    /** Candidate a leads on the first criterion and kind x, b on the second and kind y; c is behind. */
    private static GradedAnswers graded(BiPredicate<String, String> kept) {
        GradedAnswers.Accumulator all = new GradedAnswers.Accumulator(List.of("correctness", "idiom"));
        Random random = new Random(11);
        for (String candidate : List.of("a", "b", "c")) {
            for (int p = 0; p < 16; p++) {
                String prompt = (p % 2 == 0 ? "x" : "y") + p;
                for (int r = 0; r < 3; r++) {
                    for (int k = 0; k < 2; k++) {
                        boolean own = candidate.equals(p % 2 == 0 ? "a" : "b") || candidate.equals(k == 0 ? "a" : "b");
                        int level = Math.min(4, (own ? 3 : candidate.equals("c") ? 1 : 2) + random.nextInt(2));
                        if (kept.test(prompt, "r" + r)) {
                            all.add(candidate, prompt, "r" + r, candidate + prompt, k, level, 4, 100);
                        }
                    }
                }
            }
        }
        return all.snapshot(KINDS);
    }

    private static Evidence evidence(List<Evidence.CriterionAgreement> agreement) {
        return new Evidence(
                Evidence.State.CLEAR,
                List.of(new Evidence.AnswerRaters("any", 3)),
                agreement,
                new Standings(List.of(), List.of()),
                List.of("a", "b", "c").stream()
                        .map(c -> new Evidence.Contender(c, OptionalDouble.empty()))
                        .toList());
    }

    @DataProvider
    public static Object[][] leftOut() {
        BiPredicate<String, String> noRater = (prompt, rater) -> !rater.equals("r1");
        BiPredicate<String, String> noPrompt = (prompt, rater) -> !prompt.equals("x4");
        BiPredicate<String, String> oneKind = (prompt, rater) -> prompt.startsWith("y");
        return new Object[][] {
            {"nothing", ALL},
            {"a rater", noRater},
            {"a prompt", noPrompt},
            {"a kind", oneKind},
            {"a rater and a kind", noRater.and(oneKind)}
        };
    }

    @Test(dataProvider = "leftOut")
    public void leavingOutIsNeverHavingHadIt(String name, BiPredicate<String, String> kept) {
        double[] weights = {0.7, 0.3};
        Exploring.Found found = Exploring.of(graded(ALL), LEVEL).ask(weights, RULE, evidence(List.of()), kept);
        Exploring.Found without = Exploring.of(graded(kept), LEVEL).ask(weights, RULE, evidence(List.of()), ALL);
        assertThat(found.says()).isEqualTo(without.says());
        for (int i = 0; i < found.standings().standings().size(); i++) {
            assertThat(found.standings().standings().get(i).candidate())
                    .isEqualTo(without.standings().standings().get(i).candidate());
            assertThat(value(found, i)).isCloseTo(value(without, i), within(1e-9));
        }
    }

    private static double value(Exploring.Found found, int place) {
        return found.standings().standings().get(place).adjusted().value().orElseThrow();
    }

    @Test
    public void itSaysWhatRobustnessFindsAlongTheWeights() {
        GradedAnswers graded = graded(ALL);
        Robustness robustness = Robustness.of(graded, new double[] {0.5, 0.5}, RULE, evidence(List.of()), LEVEL)
                .orElseThrow();
        Exploring exploring = Exploring.of(graded, LEVEL);
        for (Robustness.Point point : robustness.along().get(0).points()) {
            double[] weights = {point.weight(), 1 - point.weight()};
            assertThat(exploring.ask(weights, RULE, evidence(List.of()), ALL).says())
                    .as("at " + point.weight())
                    .isEqualTo(point.says());
        }
    }

    @Test
    public void aWiderMarginMakesMoreSafe() {
        Exploring exploring = Exploring.of(graded(ALL), LEVEL);
        double[] weights = {0.5, 0.5};
        DecisionRule wide = new DecisionRule(
                DecisionRule.FloorOn.ESTIMATE, 60, 1, DecisionRule.TieBreak.NONE, DecisionRule.Strictness.LENIENT);
        assertThat(exploring.ask(weights, RULE, evidence(List.of()), ALL).says().outcome())
                .isEqualTo(Outcome.UNDECIDED);
        Statement says = exploring.ask(weights, wide, evidence(List.of()), ALL).says();
        assertThat(says.outcome()).isEqualTo(Outcome.SAFE_CHOICES);
        assertThat(says.safe()).contains("a", "b");
    }

    @Test
    public void whatTheRuleWithholdsForIsAskedOfTheEvidence() {
        Evidence low = evidence(List.of(new Evidence.CriterionAgreement(
                "idiom", Estimate.of(0.2), new Interval.Bounds(0.1, 0.3, LEVEL), 0.67)));
        Exploring exploring = Exploring.of(graded(ALL), LEVEL);
        assertThat(exploring.ask(new double[] {1, 1}, RULE, low, ALL).says().outcome())
                .isEqualTo(Outcome.WITHHELD);
        assertThat(exploring
                        .ask(new double[] {1, 0}, RULE, evidence(List.of()), ALL)
                        .says()
                        .outcome())
                .isNotEqualTo(Outcome.WITHHELD);
    }

    @Test
    public void kindsAreToldApartWhereTheRuleDoes() {
        DecisionRule byKind = RULE.withAllowance(Allowance.WITH_KINDS);
        Exploring exploring = Exploring.of(graded(ALL), LEVEL);
        Exploring.Found found = exploring.ask(new double[] {0.5, 0.5}, byKind, evidence(List.of()), ALL);
        assertThat(found.says().outcome()).isEqualTo(Outcome.BY_KIND);
    }

    @Test
    public void whereNothingIsLeftNothingIsSaid() {
        Exploring.Found found = Exploring.of(graded(ALL), LEVEL)
                .ask(new double[] {0.5, 0.5}, RULE, evidence(List.of()), (prompt, rater) -> false);
        assertThat(found.standings().standings()).isEmpty();
        assertThat(found.says().outcome()).isEqualTo(Outcome.WITHHELD);
    }

    @Test
    public void thereIsOneWeightACriterion() {
        Exploring exploring = Exploring.of(graded(ALL), LEVEL);
        assertThatIllegalArgumentException()
                .isThrownBy(() -> exploring.ask(new double[] {1}, RULE, evidence(List.of()), ALL))
                .withMessageContaining("weights");
    }
}
