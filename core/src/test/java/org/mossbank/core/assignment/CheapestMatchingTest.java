package org.mossbank.core.assignment;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.random.RandomGenerator;
import java.util.stream.IntStream;
import org.mossbank.core.estimate.Resamples;
import org.testng.annotations.Test;

public class CheapestMatchingTest {
    /** The least sum over all orders of the columns, tried one by one. */
    private static double leastByTryingAll(double[][] cost, int row, boolean[] taken) {
        if (row == cost.length) {
            return 0;
        }
        double least = Double.POSITIVE_INFINITY;
        for (int column = 0; column < cost.length; column++) {
            if (!taken[column]) {
                taken[column] = true;
                least = Math.min(least, cost[row][column] + leastByTryingAll(cost, row + 1, taken));
                taken[column] = false;
            }
        }
        return least;
    }

    private static double sum(double[][] cost, int[] columns) {
        return IntStream.range(0, cost.length)
                .mapToDouble(r -> cost[r][columns[r]])
                .sum();
    }

    @Test
    public void isAsCheapAsTheBestOfAllOrders() {
        RandomGenerator random = Resamples.generator(11);
        for (int round = 0; round < 300; round++) {
            int n = 1 + round % 6;
            double[][] cost = IntStream.range(0, n)
                    .mapToObj(r -> random.ints(n, -3, 9).asDoubleStream().toArray())
                    .toArray(double[][]::new);
            int[] columns = CheapestMatching.of(cost);
            assertThat(Arrays.stream(columns).sorted().toArray())
                    .isEqualTo(IntStream.range(0, n).toArray());
            assertThat(sum(cost, columns)).isCloseTo(leastByTryingAll(cost, 0, new boolean[n]), within(1e-9));
        }
    }

    @Test
    public void takesTheDearerPlaceWhereTheWholeIsCheaper() {
        assertThat(CheapestMatching.of(new double[][] {{1, 2}, {1, 9}})).containsExactly(1, 0);
    }

    @Test
    public void nothingToMatchIsNothing() {
        assertThat(CheapestMatching.of(new double[0][0])).isEmpty();
    }
}
