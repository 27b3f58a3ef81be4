package org.mossbank.core.estimate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.random.RandomGenerator;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class MultinomialTest {
    private static final int DRAWS = 40_000;

    @DataProvider
    public static Object[][] times() {
        return new Object[][] {
            {"even", new int[] {1, 1, 1}},
            {"uneven", new int[] {5, 1, 30, 0, 2}},
            {"one of nearly all", new int[] {1000, 1, 1, 1}},
            {"large ones last", new int[] {2, 300, 500}}
        };
    }

    @Test(dataProvider = "times")
    public void countsHaveTheMeansAndVariancesOfTheMultinomial(String name, int[] times) {
        RandomGenerator random = Resamples.generator(3);
        int n = Arrays.stream(times).sum();
        double[] sum = new double[times.length];
        double[] squares = new double[times.length];
        for (int d = 0; d < DRAWS; d++) {
            int[] drawn = Multinomial.draw(times, random);
            assertThat(Arrays.stream(drawn).sum()).isEqualTo(n);
            for (int i = 0; i < drawn.length; i++) {
                sum[i] += drawn[i];
                squares[i] += (drawn[i] - times[i]) * (double) (drawn[i] - times[i]);
            }
        }
        for (int i = 0; i < times.length; i++) {
            double variance = times[i] * (1 - times[i] / (double) n);
            // Four standard errors of a mean, and about as many of a variance.
            assertThat(sum[i] / DRAWS).isCloseTo(times[i], within(4 * Math.sqrt(variance / DRAWS) + 1e-9));
            assertThat(squares[i] / DRAWS).isCloseTo(variance, within(0.04 * variance + 0.01));
        }
    }

    /** by hand: of three things drawn from three, (1, 1, 1) has 6 of 27 ways and (2, 1, 0) has 3 */
    @Test
    public void smallOnesComeAsOftenAsCounted() {
        RandomGenerator random = Resamples.generator(4);
        int all = 0;
        int first = 0;
        for (int d = 0; d < DRAWS; d++) {
            int[] drawn = Multinomial.draw(new int[] {1, 1, 1}, random);
            all += Arrays.equals(drawn, new int[] {1, 1, 1}) ? 1 : 0;
            first += Arrays.equals(drawn, new int[] {2, 1, 0}) ? 1 : 0;
        }
        assertThat(all / (double) DRAWS).isCloseTo(6 / 27.0, within(0.009));
        assertThat(first / (double) DRAWS).isCloseTo(3 / 27.0, within(0.007));
    }
}
