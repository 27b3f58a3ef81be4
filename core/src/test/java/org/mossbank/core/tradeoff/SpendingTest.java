package org.mossbank.core.tradeoff;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.OptionalDouble;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.tradeoff.Spending.Works;
import org.testng.annotations.Test;

public class SpendingTest {
    private static final double EXACT = 1e-12;

    private static Spending.Answer answer(String candidate, String prompt, double cost, Works works) {
        return new Spending.Answer(
                candidate,
                prompt,
                OptionalDouble.of(cost),
                OptionalDouble.of(1000 * cost),
                OptionalDouble.empty(),
                works);
    }

    private static Spending of(String candidate, List<Spending.Answer> answers) {
        return Spending.of(answers).stream()
                .filter(s -> s.candidate().equals(candidate))
                .findFirst()
                .orElseThrow();
    }

    @Test
    public void promptsWeighAlikeHoweverOftenTheyWereAsked() {
        Spending a = of(
                "a",
                List.of(
                        answer("a", "p", 1, Works.YES),
                        answer("a", "p", 3, Works.YES),
                        answer("a", "q", 4, Works.YES)));
        // By hand: ((1 + 3) / 2 + 4) / 2 = 3, spread of 2 and 4 is sqrt 2, so t(1, .975) = 12.706205 times 1.
        assertThat(a.cost().mean()).isEqualTo(Estimate.of(3));
        assertThat(a.cost().interval())
                .isInstanceOfSatisfying(
                        Interval.Bounds.class, b -> assertThat(b.high()).isCloseTo(3 + 12.706204736, within(1e-6)));
        assertThat(a.time().mean()).isEqualTo(Estimate.of(3000));
    }

    @Test
    public void onlyPromptsCountThatEverybodyAnswered() {
        List<Spending.Answer> answers = List.of(
                answer("a", "p", 1, Works.YES), answer("a", "dear", 100, Works.YES), answer("b", "p", 2, Works.YES));
        assertThat(of("a", answers).cost().mean()).isEqualTo(Estimate.of(1));
        assertThat(of("b", answers).cost().mean()).isEqualTo(Estimate.of(2));
    }

    @Test
    public void whatFailedIsPaidForByWhatWorks() {
        Spending a = of(
                "a",
                List.of(
                        answer("a", "p", 1, Works.YES),
                        answer("a", "q", 2, Works.NO),
                        answer("a", "r", 5, Works.EMPTY),
                        answer("a", "s", 100, Works.NOT_SAID)));
        // By hand: (1 + 2 + 5) / 1; the one nobody spoke of is left out.
        assertThat(a.oneThatWorks()).isEqualTo(Estimate.of(8));
        assertThat(a.wasted()).isEqualTo(Estimate.of(5));
        assertThat(a.judged()).isEqualTo(3);
        assertThat(a.working()).isEqualTo(1);
        assertThat(a.empty()).isEqualTo(1);
        assertThat(a.answers()).isEqualTo(4);
    }

    @Test
    public void oneAnswerThatWasNotMeasuredLeavesTheMeanUnknown() {
        Spending.Answer unmeasured = new Spending.Answer(
                "a", "q", OptionalDouble.empty(), OptionalDouble.of(1), OptionalDouble.of(7), Works.YES);
        Spending a = of("a", List.of(answer("a", "p", 1, Works.YES), unmeasured));
        assertThat(a.cost().mean()).isEqualTo(Estimate.undefined(Reason.NOT_MEASURED));
        assertThat(a.oneThatWorks()).isEqualTo(Estimate.undefined(Reason.NOT_MEASURED));
        assertThat(a.tokens().mean()).isEqualTo(Estimate.undefined(Reason.NOT_MEASURED));
        assertThat(a.time().mean().value().orElseThrow()).isCloseTo(500.5, within(EXACT));
    }

    @Test
    public void nothingThatWorksHasNoPrice() {
        assertThat(of("a", List.of(answer("a", "p", 1, Works.NO))).oneThatWorks())
                .isEqualTo(Estimate.undefined(Reason.NOTHING_WORKS));
    }
}
