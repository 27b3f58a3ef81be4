package org.mossbank.core.tradeoff;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.mossbank.core.tradeoff.TeamCost.Way;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class TeamCostTest {
    private static final double EXACT = 1e-9;
    private static final TeamCost.Use TEN_PEOPLE = new TeamCost.Use(10, 12, 20);

    private static List<TeamCost> of(OptionalDouble task, OptionalDouble monthly, TeamCost.Cap cap) {
        return TeamCost.of(TEN_PEOPLE, new TeamCost.Terms(task, monthly, Optional.ofNullable(cap)));
    }

    @Test
    public void byTokensNothingIsStopped() {
        // By hand: 10 people × 12 tasks × 20 days × 0.05.
        assertThat(of(OptionalDouble.of(0.05), OptionalDouble.empty(), null))
                .containsExactly(new TeamCost(Way.TOKENS, 120, 2400, 0));
    }

    @Test
    public void aPlanWithoutACapStopsNothing() {
        assertThat(of(OptionalDouble.empty(), OptionalDouble.of(30), null))
                .containsExactly(new TeamCost(Way.PLAN, 300, 2400, 0));
    }

    @DataProvider
    Object[][] caps() {
        return new Object[][] {
            // By hand: (12 - 8) a day and person, 10 people, 20 days.
            {"8 a day", new TeamCost.Cap(8, 1), 800.0},
            // (60 - 50) a week of five days and person, four weeks.
            {"50 a week", new TeamCost.Cap(50, 5), 400.0},
            {"240 a month are just enough", new TeamCost.Cap(240, 20), 0.0},
            {"nothing at all", new TeamCost.Cap(0, 1), 2400.0},
        };
    }

    @Test(dataProvider = "caps")
    public void aCapStopsWhatLiesAboveIt(String name, TeamCost.Cap cap, double stopped) {
        TeamCost plan = of(OptionalDouble.empty(), OptionalDouble.of(30), cap).get(0);
        assertThat(plan.stopped()).as(name).isCloseTo(stopped, within(EXACT));
        assertThat(plan.done()).isCloseTo(2400 - stopped, within(EXACT));
        assertThat(plan.monthly()).isEqualTo(300);
    }

    @Test
    public void whatACapStopsCanBePaidForByTokens() {
        List<TeamCost> ways = of(OptionalDouble.of(0.5), OptionalDouble.of(30), new TeamCost.Cap(8, 1));
        // By hand: 300 and 800 × 0.5 for the plan with tokens; 2400 × 0.5 by tokens; the plan alone stops something, so
        // it is last.
        assertThat(ways)
                .containsExactly(
                        new TeamCost(Way.PLAN_AND_TOKENS, 700, 2400, 0),
                        new TeamCost(Way.TOKENS, 1200, 2400, 0),
                        new TeamCost(Way.PLAN, 300, 1600, 800));
    }

    @Test
    public void aTaskThatIsNeverDoneHasNoPrice() {
        assertThat(new TeamCost(Way.PLAN, 300, 1600, 800).aTask()).hasValue(300.0 / 1600);
        assertThat(new TeamCost(Way.PLAN, 300, 0, 2400).aTask()).isEmpty();
    }

    @Test
    public void withoutAPriceThereIsNoWay() {
        assertThat(of(OptionalDouble.empty(), OptionalDouble.empty(), null)).isEmpty();
    }

    @Test
    public void useMustBeSomething() {
        assertThatThrownBy(() -> new TeamCost.Use(0, 1, 20)).hasMessageContaining("people");
        assertThatThrownBy(() -> new TeamCost.Use(1, 0, 20)).hasMessageContaining("tasks a day");
        assertThatThrownBy(() -> new TeamCost.Use(1, Double.NaN, 20)).hasMessageContaining("tasks a day");
        assertThatThrownBy(() -> new TeamCost.Use(1, 1, 32)).hasMessageContaining("days a month");
    }
}
