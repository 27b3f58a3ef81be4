package org.mossbank.core.estimate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.hipparchus.distribution.continuous.TDistribution;
import org.hipparchus.special.Erf;
import org.testng.annotations.Test;

public class StudentTest {
    @Test
    public void quantilesAreThoseOfTheLibrary() {
        for (double freedom : new double[] {1, 2.5, 3, 3.7, 8, 12.4, 60, 1e4}) {
            for (double p : new double[] {0.005, 0.3, 0.5, 0.8, 0.95, 0.975, 0.9999, 0.9999999}) {
                double expected = new TDistribution(freedom).inverseCumulativeProbability(p);
                assertThat(Student.of(freedom).quantile(p))
                        .as(p + " at " + freedom)
                        .isCloseTo(expected, within(1e-8 * Math.max(1, Math.abs(expected))));
            }
        }
    }

    @Test
    public void tailsAreThoseOfTheLibrary() {
        for (double freedom : new double[] {0.7, 1, 3, 12.4, 400, 1e5}) {
            for (double t : new double[] {0, 1e-9, 0.3, 1, 2.2, 9, 80}) {
                double expected = 2 * new TDistribution(freedom).cumulativeProbability(-t);
                assertThat(Student.of(freedom).twoSidedP(t))
                        .as(t + " at " + freedom)
                        .isCloseTo(expected, within(1e-11 + 1e-9 * expected));
            }
        }
    }

    @Test
    public void normalTailsAreThoseOfTheLibrary() {
        for (double z = -9; z < 12; z += 0.37) {
            double expected = 0.5 * Erf.erfc(z / Math.sqrt(2));
            assertThat(Normal.upper(z)).as("%s", z).isCloseTo(expected, within(1e-14));
        }
    }

    @Test
    public void aQuantileHasItsOwnProbability() {
        double t = Student.of(9.5).quantile(0.975);
        assertThat(Student.of(9.5).twoSidedP(t)).isCloseTo(0.05, within(1e-12));
        assertThat(Student.of(9.5).twoSidedP(-t)).isCloseTo(0.05, within(1e-12));
    }
}
