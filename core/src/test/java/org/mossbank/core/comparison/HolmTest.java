package org.mossbank.core.comparison;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.random.RandomGenerator;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.Resamples;
import org.testng.annotations.Test;

public class HolmTest {
    /** Worked by hand: 0.01 · 4, 0.02 · 3, 0.03 · 2 which may not fall below the one before, 0.5 · 1. */
    @Test
    public void multipliesByWhatIsLeftAndNeverFalls() {
        assertThat(Holm.adjust(0.03, 0.01, 0.5, 0.02))
                .containsExactly(new double[] {0.06, 0.04, 0.5, 0.06}, within(1e-12));
    }

    @Test
    public void neverPassesOne() {
        assertThat(Holm.adjust(0.6, 0.7, 0.8)).containsExactly(1, 1, 1);
    }

    @Test
    public void oneTestStaysAsItIs() {
        assertThat(Holm.adjust(0.04)).containsExactly(0.04);
        assertThat(Holm.adjust()).isEmpty();
    }

    /** Never less than the plain value, never more than Bonferroni's, and in the same order. */
    @Test
    public void liesBetweenPlainAndBonferroni() {
        RandomGenerator random = Resamples.generator(3);
        for (int round = 0; round < 200; round++) {
            double[] p = random.doubles(1 + round % 9).toArray();
            double[] adjusted = Holm.adjust(p);
            for (int i = 0; i < p.length; i++) {
                assertThat(adjusted[i]).isBetween(p[i], Math.min(1, p.length * p[i]));
                for (int j = 0; j < p.length; j++) {
                    if (p[i] < p[j]) {
                        assertThat(adjusted[i]).isLessThanOrEqualTo(adjusted[j]);
                    }
                }
            }
        }
    }

    @Test
    public void tiesShareWhatTheyGet() {
        double[] adjusted = Holm.adjust(0.02, 0.02, 0.02);
        assertThat(Arrays.stream(adjusted).distinct()).hasSize(1);
        assertThat(Holm.ranks(0.2, 0.1, 0.2)).containsExactly(1, 0, 2);
    }

    @Test
    public void refusesWhatIsNoProbability() {
        for (double wrong : new double[] {-0.01, 1.01, Double.NaN}) {
            assertThatIllegalArgumentException().isThrownBy(() -> Holm.adjust(0.5, wrong));
        }
    }

    /** p of 0.010, 0.015, 0.020 and 0.30: three are rejected, at 0.05 over 4, 3 and 2; the last at the level of its own step. */
    @Test
    public void intervalsSayWhatPSays() {
        Holm.Steps steps = Holm.steps(
                List.of(
                        Estimate.of(0.020),
                        Estimate.undefined(Reason.NO_P_VALUE),
                        Estimate.of(0.30),
                        Estimate.of(0.010),
                        Estimate.of(0.015)),
                0.05);

        assertThat(steps.level(3)).isCloseTo(0.0125, within(1e-12));
        assertThat(steps.level(4)).isCloseTo(0.05 / 3, within(1e-12));
        assertThat(steps.level(0)).isCloseTo(0.025, within(1e-12));
        assertThat(steps.level(2)).isCloseTo(0.05, within(1e-12));
        assertThat(steps.adjusted().get(0).value().orElseThrow()).isCloseTo(0.045, within(1e-12));
        assertThat(steps.adjusted().get(1)).isEqualTo(Estimate.undefined(Reason.NO_P_VALUE));
    }

    /** The first is not rejected: nothing after it is, and all are looked at as strictly as it was. */
    @Test
    public void whatComesAfterTheFirstThatIsKeptUsesItsStep() {
        Holm.Steps steps = Holm.steps(List.of(Estimate.of(0.03), Estimate.of(0.02), Estimate.of(0.04)), 0.05);

        assertThat(steps.levels()).allSatisfy(level -> assertThat(level).isCloseTo(0.05 / 3, within(1e-12)));
    }
}
