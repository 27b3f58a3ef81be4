package org.mossbank.core.tradeoff;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;
import java.util.Random;
import org.mossbank.core.comparison.PromptGroups;
import org.mossbank.core.comparison.ScoredCell;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Reason;
import org.testng.annotations.Test;

public class MixTest {
    private static final PromptGroups KINDS = PromptGroups.byKind(p -> p.substring(0, 1));

    /** Candidate a is good at x and b at y, by so much; c is as good as a is on average. */
    private static List<ScoredCell> cells(double apart, double noise) {
        Random random = new Random(2);
        List<ScoredCell> cells = new ArrayList<>();
        for (int p = 0; p < 16; p++) {
            String prompt = (p % 2 == 0 ? "x" : "y") + p;
            for (String c : List.of("a", "b", "c")) {
                double sign = c.equals("c") ? 0 : c.equals("a") == (p % 2 == 0) ? 1 : -1;
                for (int r = 0; r < 3; r++) {
                    cells.add(new ScoredCell(c, prompt, "r" + r, 50 + sign * apart + noise * random.nextGaussian()));
                }
            }
        }
        return cells;
    }

    @Test
    public void whoIsGoodAtDifferentKindsGainsByBeingMixed() {
        Mix mix = Mix.byKind(cells(20, 1), KINDS, 0.95).orElseThrow();
        assertThat(mix.kinds()).containsExactly("x", "y");
        assertThat(mix.candidates()).containsExactly("a", "b");
        assertThat(mix.gain().value().orElseThrow()).isCloseTo(20, within(1.5));
        assertThat(((Interval.Bounds) mix.interval()).low()).isPositive();
        Mix pair = Mix.bestPair(cells(20, 1), KINDS, 0.95).orElseThrow();
        assertThat(pair.candidates()).containsExactly("a", "b");
        assertThat(pair.gain().value().orElseThrow()).isCloseTo(20, within(1.5));
    }

    /** With nothing but noise a winner picked by itself would seem to gain; picked by others it does not. */
    @Test
    public void noiseIsNoGain() {
        Interval.Bounds byKind = (Interval.Bounds)
                Mix.byKind(cells(0, 15), KINDS, 0.95).orElseThrow().interval();
        Interval.Bounds pair = (Interval.Bounds)
                Mix.bestPair(cells(0, 15), KINDS, 0.95).orElseThrow().interval();
        assertThat(byKind.low()).isNegative();
        assertThat(pair.low()).isLessThan(2);
    }

    @Test
    public void ofOneKindThereIsNoMixByKind() {
        assertThat(Mix.byKind(cells(5, 1), PromptGroups.byKind(p -> ""), 0.95)).isEmpty();
    }

    @Test
    public void attemptsTellHowSteadyACandidateIs() {
        List<Attempts.Answer> answers = List.of(
                new Attempts.Answer("a", "p", 40),
                new Attempts.Answer("a", "p", 60),
                new Attempts.Answer("a", "q", 80),
                new Attempts.Answer("a", "q", 80),
                new Attempts.Answer("b", "p", 70));
        List<Attempts> found = Attempts.of(answers);
        // by hand: squares 100 + 100 over 1 + 1 degrees of freedom; worst 40 and 80
        assertThat(found.get(0).within().value().orElseThrow()).isCloseTo(10, within(1e-12));
        assertThat(found.get(0).worst()).isEqualTo(Estimate.of(60));
        assertThat(found.get(0).mean()).isEqualTo(Estimate.of(65));
        assertThat(found.get(1).within()).isEqualTo(Estimate.undefined(Reason.TOO_FEW_PAIRS));
        // by hand: means 65 and 70
        assertThat(Attempts.between(answers).value().orElseThrow()).isCloseTo(Math.sqrt(12.5), within(1e-12));
    }

    private static CostOfPrompts.Cost cost(String candidate, String prompt, double amount, String currency) {
        return new CostOfPrompts.Cost(candidate, prompt, OptionalDouble.of(amount), currency, false);
    }

    @Test
    public void costsAreMeansOverPromptsThatAllAnswered() {
        CostOfPrompts found = CostOfPrompts.of(List.of(
                cost("a", "p", 2, "EUR"),
                cost("a", "p", 4, "EUR"),
                cost("a", "only a's", 100, "EUR"),
                cost("a", "q", 5, "EUR"),
                cost("b", "p", 6, "EUR"),
                cost("b", "q", 6, "EUR")));
        // by hand: asked twice counts once, and what one alone answered not at all
        assertThat(found.mean("a")).hasValue(4);
        assertThat(found.mean("b")).hasValue(6);
        assertThat(found.prompts()).isEqualTo(2);
        assertThat(found.currency()).isEqualTo("EUR");
    }

    @Test
    public void costsThatCannotBeComparedAreNotKnown() {
        assertThat(CostOfPrompts.of(List.of(cost("a", "p", 2, "EUR"), cost("b", "p", 2, "JPY")))
                        .means())
                .isEmpty();
        CostOfPrompts oneUnknown = CostOfPrompts.of(
                List.of(cost("a", "p", 2, "EUR"), new CostOfPrompts.Cost("b", "p", OptionalDouble.empty(), "", false)));
        assertThat(oneUnknown.mean("a")).isEmpty();
        assertThat(oneUnknown.why()).isEqualTo("some answers have no cost");
        assertThat(CostOfPrompts.of(List.of(cost("a", "p", 2, "EUR"), cost("b", "q", 2, "EUR")))
                        .why())
                .isEqualTo("no prompt was answered by all");
    }

    @Test
    public void estimatesAreTold() {
        CostOfPrompts found = CostOfPrompts.of(
                List.of(cost("a", "p", 2, "EUR"), new CostOfPrompts.Cost("b", "p", OptionalDouble.of(1), "EUR", true)));
        assertThat(found.estimated()).containsExactly("b");
    }
}
