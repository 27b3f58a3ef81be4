package org.mossbank.core.ranking;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;
import org.testng.annotations.Test;

public class RankingTest {
    @Test
    public void equalValuesShareTheMeanOfTheirPlaces() {
        Ranks ranks = Ranks.of(3, 1, 3, 2, 3);

        assertThat(ranks.toArray()).containsExactly(4, 1, 4, 2, 4);
        assertThat(ranks.tieTerm()).isEqualTo(24);
    }

    @Test
    public void correlationsByHand() {
        RankCorrelation correlation = RankCorrelation.of(new double[] {1, 2, 3, 4}, new double[] {1, 3, 2, 2});

        // by hand: ranks of y 1, 4, 2.5, 2.5; products 2.25 - 0.75 + 0 + 0 = 1.5; squares 5 and 4.5
        assertThat(correlation.rho().value().orElseThrow()).isCloseTo(1.5 / Math.sqrt(22.5), within(1e-12));
        // 3 pairs in one order, 2 in the other, 1 tied in y alone
        assertThat(correlation.tauB().value().orElseThrow()).isCloseTo(1 / Math.sqrt(30), within(1e-12));
    }

    @Test
    public void whatNeverChangesHasNoOrder() {
        assertThat(RankCorrelation.of(new double[] {1, 1}, new double[] {1, 2}).tauB())
                .isEqualTo(Estimate.undefined(Reason.CONSTANT));
        assertThat(RankCorrelation.of(new double[] {1}, new double[] {1}).rho())
                .isEqualTo(Estimate.undefined(Reason.TOO_FEW_PAIRS));
    }

    @Test
    public void friedmanByHand() {
        Friedman friedman = Friedman.of(List.of(new double[] {1, 2, 3}, new double[] {1, 3, 2}));

        // by hand: sums 2, 5, 5 about 4: 12 × 6 / (2 × 3 × 4)
        assertThat(friedman.chiSquared().value().orElseThrow()).isCloseTo(3, within(1e-12));
        // of two degrees of freedom: exp(-3 / 2)
        assertThat(friedman.p().value().orElseThrow()).isCloseTo(Math.exp(-1.5), within(1e-12));
        assertThat(friedman.rankSums()).containsExactly(2.0, 5.0, 5.0);
    }

    @Test
    public void friedmanWithoutAnOrderIsUndefined() {
        assertThat(Friedman.of(List.of(new double[] {1, 1})).chiSquared())
                .isEqualTo(Estimate.undefined(Reason.ALL_TIED));
        assertThat(Friedman.of(List.of()).chiSquared()).isEqualTo(Estimate.undefined(Reason.NO_DATA));
    }

    private static PairedComparisons.Row row(String a, String b, double wins, double losses, double ties) {
        return new PairedComparisons.Row(a, b, wins, losses, ties);
    }

    /** Two things: the odds are the wins. */
    @Test
    public void abilitiesOfTwoAreTheirOdds() {
        Abilities abilities =
                Abilities.withoutTies(PairedComparisons.of(List.of(row("a", "b", 2, 1, 5), row("b", "a", 1, 4, 0))));

        assertThat(abilities.strengths().get("a").value().orElseThrow()).isCloseTo(0.75, within(1e-9));
        assertThat(abilities.logAbilities().get("b").value().orElseThrow()).isCloseTo(-Math.log(3) / 2, within(1e-9));
        assertThat(abilities.logLikelihood().value().orElseThrow())
                .isCloseTo(6 * Math.log(0.75) + 2 * Math.log(0.25), within(1e-9));
        assertThat(abilities.tieRate()).isEqualTo(Estimate.of(0));
    }

    /** Two that win alike and tie half of the time: ν / (2 + ν) is a half. */
    @Test
    public void theTieRateIsTheShareOfTies() {
        Abilities abilities = Abilities.withTies(PairedComparisons.of(List.of(row("a", "b", 3, 3, 6))));

        assertThat(abilities.tieRate().value().orElseThrow()).isCloseTo(2, within(1e-9));
        assertThat(abilities.strengths().get("a").value().orElseThrow()).isCloseTo(0.5, within(1e-9));
    }

    @Test
    public void withoutTiesBothModelsAreOne() {
        PairedComparisons comparisons =
                PairedComparisons.of(List.of(row("a", "b", 3, 2, 0), row("b", "c", 4, 1, 0), row("c", "a", 2, 5, 0)));

        assertThat(Abilities.withTies(comparisons)).isEqualTo(Abilities.withoutTies(comparisons));
    }

    @Test
    public void whoeverNeverLosesHasNoFiniteAbility() {
        Abilities abilities = Abilities.withTies(
                PairedComparisons.of(List.of(row("a", "b", 3, 0, 0), row("a", "c", 2, 0, 0), row("b", "c", 2, 2, 1))));

        assertThat(abilities.tieRate()).isEqualTo(Estimate.undefined(Reason.NO_FINITE_MAXIMUM));
    }

    @Test
    public void tiesAloneHaveNoFiniteRate() {
        Abilities abilities = Abilities.withTies(PairedComparisons.of(List.of(row("a", "b", 0, 0, 4))));

        assertThat(abilities.logAbilities().get("a")).isEqualTo(Estimate.undefined(Reason.NO_FINITE_MAXIMUM));
    }

    /** a beats b and b beats c clearly, while a ties d, d beats c, c ties b: all tied or won in one direction. */
    @Test
    public void winsInOneDirectionAmongTiesGrowWithoutEnd() {
        Abilities abilities = Abilities.withTies(
                PairedComparisons.of(List.of(row("a", "b", 2, 0, 0), row("b", "c", 0, 0, 3), row("c", "a", 0, 0, 2))));

        assertThat(abilities.tieRate()).isEqualTo(Estimate.undefined(Reason.NO_FINITE_MAXIMUM));
    }
}
