package org.mossbank.core.estimate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class WilsonTest {
    @DataProvider
    public Object[][] shares() {
        return new Object[][] {
            // By hand with z = 1.959964: (8 + 1.92073) / 13.84146 ± 1.959964 / 13.84146 · sqrt(8 · 2 / 10 + 0.960365).
            {8, 10, 0.490162, 0.943318},
            // z² / (n + z²) = 3.84146 / 13.84146.
            {0, 10, 0.0, 0.277533},
            {10, 10, 0.722467, 1.0},
            {1, 2, 0.094531, 0.905469},
        };
    }

    @Test(dataProvider = "shares")
    public void solvesTheScoreEquation(int hits, int tries, double low, double high) {
        Interval.Bounds bounds = (Interval.Bounds) Wilson.interval(hits, tries, 0.95);

        assertThat(bounds.low()).isEqualTo(low, within(5e-6));
        assertThat(bounds.high()).isEqualTo(high, within(5e-6));
    }

    /** Each limit is the share from which what was seen lies just z standard errors off. */
    @Test
    public void limitsAreWhereTheScoreReachesTheQuantile() {
        Interval.Bounds bounds = (Interval.Bounds) Wilson.interval(13, 40, 0.95);

        for (double limit : new double[] {bounds.low(), bounds.high()}) {
            double score = Math.abs(13 / 40.0 - limit) / Math.sqrt(limit * (1 - limit) / 40);
            assertThat(score).isEqualTo(1.959964, within(1e-6));
        }
    }

    @Test
    public void undefinedWithoutATry() {
        assertThat(Wilson.interval(0, 0, 0.95)).isEqualTo(Interval.undefined(Reason.NO_DATA));
        assertThatThrownBy(() -> Wilson.interval(3, 2, 0.95)).isInstanceOf(IllegalArgumentException.class);
    }
}
