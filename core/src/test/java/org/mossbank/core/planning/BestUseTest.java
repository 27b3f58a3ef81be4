package org.mossbank.core.planning;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.core.estimate.Resamples;
import org.testng.annotations.Test;

public class BestUseTest {
    private static final Forecast.Terms TERMS = new Forecast.Terms(
            GradingModel.GOOD,
            new DecisionRule(
                    DecisionRule.FloorOn.UPPER_LIMIT,
                    8,
                    1,
                    DecisionRule.TieBreak.NONE,
                    DecisionRule.Strictness.LENIENT),
            -1);

    private static List<BestUse.Way> ways(double hours) {
        return BestUse.of(new BestUse.Means(hours, 5, 3, 5, 4), TERMS, 120, 5, 150, Resamples.generator(1));
    }

    @Test
    public void noWayTakesMoreThanThereIs() {
        assertThat(ways(20)).isNotEmpty().allSatisfy(w -> assertThat(w.hours()).isLessThanOrEqualTo(20));
    }

    /** 240 gradings of three candidates: 40 prompts by two raters find more than 16 by five. */
    @Test
    public void manyPromptsByTwoBeatFewByAll() {
        List<BestUse.Way> ways = ways(20);
        BestUse.Way two = way(ways, 2);
        BestUse.Way five = way(ways, 5);
        assertThat(two.study().prompts()).isEqualTo(40);
        assertThat(five.study().prompts()).isEqualTo(16);
        assertThat(two.found()).isGreaterThan(five.found() + 0.1);
        assertThat(ways.get(0).study().ratersAnAnswer()).isBetween(2, 3);
    }

    @Test
    public void oneRaterAnAnswerTellsNothingOfAgreement() {
        assertThat(way(ways(20), 1).withheld()).isGreaterThan(0.99);
    }

    @Test
    public void withHardlyAnyTimeThereIsNoWay() {
        assertThat(ways(0.5)).isEmpty();
    }

    private static BestUse.Way way(List<BestUse.Way> ways, int ratersAnAnswer) {
        return ways.stream()
                .filter(w -> w.study().ratersAnAnswer() == ratersAnAnswer
                        && w.study().attempts() == 1)
                .findFirst()
                .orElseThrow();
    }
}
