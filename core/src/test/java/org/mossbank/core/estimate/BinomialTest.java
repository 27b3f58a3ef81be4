package org.mossbank.core.estimate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;
import static org.assertj.core.api.Assertions.within;

import org.testng.annotations.Test;

public class BinomialTest {
    @Test
    public void chanceOfAsManyIsExact() {
        // by hand: 3 of 4 or more at one in two: (4 + 1) / 16
        Binomial found = Binomial.of(3, 4, 0.5, 0.95);
        assertThat(found.p().value().orElseThrow()).isCloseTo(5 / 16.0, within(1e-12));
        assertThat(found.share()).isEqualTo(Estimate.of(0.75));
    }

    @Test
    public void limitsLeaveHalfOfTheRestOnEachSide() {
        // by hand: with all hit, the lower limit l has l^5 = 0.025
        Interval.Bounds all = (Interval.Bounds) Binomial.of(5, 5, 0.2, 0.95).interval();
        assertThat(all.low()).isCloseTo(Math.pow(0.025, 0.2), within(1e-9));
        assertThat(all.high()).isEqualTo(1);
        Interval.Bounds none = (Interval.Bounds) Binomial.of(0, 5, 0.2, 0.95).interval();
        assertThat(none.low()).isEqualTo(0);
        assertThat(none.high()).isCloseTo(1 - Math.pow(0.025, 0.2), within(1e-9));
        assertThat(Binomial.of(0, 5, 0.2, 0.95).p()).isEqualTo(Estimate.of(1));
    }

    @Test
    public void withoutATryNothingIsKnown() {
        assertThat(Binomial.of(0, 0, 0.2, 0.95).share()).isEqualTo(Estimate.undefined(Reason.NO_DATA));
        assertThatIllegalArgumentException().isThrownBy(() -> Binomial.of(3, 2, 0.2, 0.95));
    }
}
