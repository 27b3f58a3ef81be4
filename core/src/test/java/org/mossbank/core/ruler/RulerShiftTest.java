package org.mossbank.core.ruler;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.StudentMean;
import org.mossbank.core.ruler.RulerShift.Anchor;
import org.mossbank.core.ruler.RulerShift.Verdict;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class RulerShiftTest {
    private static final double EXACT = 1e-9;

    private static RulerShift of(double... shifts) {
        return RulerShift.of(java.util.stream.IntStream.range(0, shifts.length)
                .mapToObj(i -> new Anchor("p" + i, 50, 50 + shifts[i]))
                .toList());
    }

    @Test
    public void promptsWeighAlike() {
        RulerShift shift =
                RulerShift.of(List.of(new Anchor("p", 50, 60), new Anchor("p", 40, 60), new Anchor("q", 50, 55)));
        // By hand: ((10 + 20) / 2 + 5) / 2.
        assertThat(shift.shift().mean()).isEqualTo(Estimate.of(10));
        assertThat(shift.prompts()).isEqualTo(2);
        assertThat(shift.answers()).isEqualTo(3);
    }

    @DataProvider
    Object[][] verdicts() {
        return new Object[][] {
            // Spread of 8, 10, 12 is 2, so t(2, .975) = 4.3027 times 2 / √3: 4.97 either way.
            {"from 5.0 to 15.0", of(8, 10, 12), 10.0, Verdict.MOVED},
            {"the same, where 20 matters", of(8, 10, 12), 20.0, Verdict.MOVED_LITTLE},
            {"from -4.97 to 4.97", of(-2, 0, 2), 5.0, Verdict.HELD},
            {"the same, where 4 matters", of(-2, 0, 2), 4.0, Verdict.UNCLEAR},
            {"one prompt has no interval", of(3), 5.0, Verdict.UNCLEAR},
            {"nothing was graded twice", of(), 5.0, Verdict.UNCLEAR},
        };
    }

    @Test(dataProvider = "verdicts")
    public void saysWhatItCan(String name, RulerShift shift, double margin, Verdict verdict) {
        assertThat(shift.verdict(margin)).as(name).isEqualTo(verdict);
    }

    @Test
    public void standingsOfThenMoveAndGetWider() {
        RulerShift shift = of(8, 10, 12);
        StudentMean moved = shift.onTodaysRuler(Estimate.of(60), new Interval.Bounds(57, 63, 0.95));
        assertThat(moved.mean()).isEqualTo(Estimate.of(70));
        // By hand: √(3² + 4.9683²).
        Interval.Bounds bounds = (Interval.Bounds) moved.interval();
        assertThat(bounds.high() - 70).isCloseTo(Math.hypot(3, 4.30265273 * 2 / Math.sqrt(3)), within(1e-6));
        assertThat(70 - bounds.low()).isCloseTo(bounds.high() - 70, within(EXACT));
    }

    @Test
    public void withoutAnchorsNothingCanBePutOnTodaysRuler() {
        assertThat(of().onTodaysRuler(Estimate.of(60), new Interval.Bounds(57, 63, 0.95))
                        .mean()
                        .value())
                .isEmpty();
    }
}
