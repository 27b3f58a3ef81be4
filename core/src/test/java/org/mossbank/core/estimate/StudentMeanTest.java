package org.mossbank.core.estimate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.testng.annotations.Test;

public class StudentMeanTest {
    private static final double LEVEL = 0.95;

    @Test
    public void theIntervalIsStudents() {
        StudentMean found = StudentMean.of(new double[] {1, 2, 3, 4, 5}, LEVEL);
        assertThat(found.mean().value()).hasValue(3);
        Interval.Bounds bounds = (Interval.Bounds) found.interval();
        // by hand: s = √2.5, t(4, .975) = 2.776445 of the tables, so 2.776445 · √(2.5 / 5) = 1.963243
        assertThat(bounds.low()).isCloseTo(3 - 1.963243, within(1e-6));
        assertThat(bounds.high()).isCloseTo(3 + 1.963243, within(1e-6));
    }

    @Test
    public void oneValueHasNoInterval() {
        StudentMean found = StudentMean.of(new double[] {0.5}, LEVEL);
        assertThat(found.mean().value()).hasValue(0.5);
        assertThat(found.interval()).isInstanceOf(Interval.Undefined.class);
    }

    @Test
    public void nothingHasNoMean() {
        assertThat(StudentMean.of(new double[0], LEVEL).mean()).isInstanceOf(Estimate.Undefined.class);
    }

    @Test
    public void valuesThatAreAlikeHaveAnIntervalWithoutWidth() {
        Interval.Bounds bounds =
                (Interval.Bounds) StudentMean.of(new double[] {2, 2, 2}, LEVEL).interval();
        assertThat(bounds.high() - bounds.low()).isZero();
    }
}
