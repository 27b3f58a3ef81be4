package org.mossbank.core.decision;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import org.hipparchus.distribution.continuous.NormalDistribution;
import org.testng.annotations.Test;

public class LooksTest {
    private static double bound(double level) {
        return new NormalDistribution().inverseCumulativeProbability(1 - level / 2);
    }

    @Test
    public void oneLookAtTheEndSpendsAll() {
        assertThat(Looks.levels(0.05, List.of(1.0)).get(0)).isCloseTo(0.05, within(1e-9));
    }

    /** Published bounds of this spending function with even looks (two-sided 0.05), to three decimals. */
    @Test
    public void boundsAreThosePublished() {
        List<Double> two = Looks.levels(0.05, List.of(0.5, 1.0));
        assertThat(bound(two.get(0))).isCloseTo(2.963, within(0.002));
        assertThat(bound(two.get(1))).isCloseTo(1.969, within(0.002));
        List<Double> four = Looks.levels(0.05, List.of(0.25, 0.5, 0.75, 1.0));
        assertThat(bound(four.get(0))).isCloseTo(4.333, within(0.003));
        assertThat(bound(four.get(1))).isCloseTo(2.963, within(0.002));
        assertThat(bound(four.get(2))).isCloseTo(2.359, within(0.002));
        assertThat(bound(four.get(3))).isCloseTo(2.014, within(0.002));
    }

    /** Of walks that go nowhere, just as many cross some bound as may. */
    @Test
    public void allLooksTogetherStayWithinTheAllowance() {
        List<Double> at = List.of(0.3, 0.55, 0.8, 1.0);
        List<Double> levels = Looks.levels(0.05, at);
        Random random = new Random(8);
        int walks = 40_000;
        int crossed = 0;
        for (int w = 0; w < walks; w++) {
            double sum = 0;
            double before = 0;
            boolean over = false;
            for (int i = 0; i < at.size(); i++) {
                sum += Math.sqrt(at.get(i) - before) * random.nextGaussian();
                before = at.get(i);
                over |= Math.abs(sum) / Math.sqrt(before) >= bound(levels.get(i));
            }
            crossed += over ? 1 : 0;
        }
        // Three standard errors of 40,000 walks.
        assertThat(crossed / (double) walks).isCloseTo(0.05, within(0.0033));
    }

    @Test
    public void anAllowanceIsSplitAlikeAtALook() {
        Allowance half = Allowance.WITH_KINDS.at(List.of(0.5));
        assertThat(half.overall()).isCloseTo(Looks.spent(0.04, 0.5), within(1e-9));
        assertThat(half.kinds()).isCloseTo(Looks.spent(0.01, 0.5), within(1e-9));
        assertThat(Allowance.OVERALL.at(List.of(1.0)).overall()).isCloseTo(0.05, within(1e-9));
        assertThat(Allowance.OVERALL.at(List.of(1e-4)).overall()).isPositive();
    }

    @Test
    public void refusesWhatCannotBe() {
        assertThatIllegalArgumentException().isThrownBy(() -> Looks.levels(0.05, List.of()));
        assertThatIllegalArgumentException().isThrownBy(() -> Looks.levels(0.05, List.of(0.5, 0.5)));
        assertThatIllegalArgumentException().isThrownBy(() -> Looks.levels(0.05, List.of(1.1)));
        assertThatIllegalArgumentException().isThrownBy(() -> new Allowance(0.05, 0.01));
        assertThatIllegalArgumentException().isThrownBy(() -> new Allowance(0, 0.01));
    }
}
