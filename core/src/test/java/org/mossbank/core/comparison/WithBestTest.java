package org.mossbank.core.comparison;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.hipparchus.distribution.continuous.TDistribution;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Reason;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class WithBestTest {
    private static Difference difference(String higher, String lower, double estimate, double error, double p) {
        Interval interval = new Interval.Bounds(estimate - 2 * error, estimate + 2 * error, 0.95);
        return new Difference(
                higher,
                lower,
                Estimate.of(estimate),
                Estimate.of(error),
                12,
                interval,
                interval,
                Estimate.of(p),
                interval);
    }

    @DataProvider
    public static Object[][] tables() {
        // Dunnett (1955), table 1a, one-sided 95 %: differences, degrees of freedom, value to two places
        return new Object[][] {
            {1, 12.0, 1.78},
            {2, 12.0, 2.11},
            {3, 12.0, 2.29},
            {5, 12.0, 2.50},
            {3, 5.0, 2.68},
            {9, 20.0, 2.60},
            {2, 60.0, 1.95},
        };
    }

    @Test(dataProvider = "tables")
    public void criticalValuesAreTheTabulatedOnes(int differences, double freedom, double tabulated) {
        assertThat(DunnettCritical.of(differences, freedom, 0.5, 0.05)).isCloseTo(tabulated, within(0.015));
        assertThat(DunnettCritical.solve(differences, 0.5, 0.05, DunnettCritical.scales(freedom)))
                .as("and not only as it is kept")
                .isCloseTo(tabulated, within(0.025));
    }

    /** Against draws of what it is the quantile of: correlated normals over one scale. */
    @Test
    public void criticalValuesHoldAsOftenAsTheySay() {
        Random random = new Random(5);
        double critical = DunnettCritical.solve(4, 0.3, 0.05, DunnettCritical.scales(10));
        int draws = 200_000;
        int within = 0;
        for (int i = 0; i < draws; i++) {
            double common = Math.sqrt(0.3) * random.nextGaussian();
            double chiSquared = 0;
            for (int k = 0; k < 10; k++) {
                chiSquared += Math.pow(random.nextGaussian(), 2);
            }
            double most = IntStream.range(0, 4)
                    .mapToDouble(j -> common + Math.sqrt(0.7) * random.nextGaussian())
                    .max()
                    .orElseThrow();
            within += most / Math.sqrt(chiSquared / 10) <= critical ? 1 : 0;
        }
        // Three standard errors of a share of 0.95 are 0.0015.
        assertThat(within / (double) draws).isCloseTo(0.95, within(0.003));
    }

    @Test
    public void oneOtherNeedsNoMoreThanStudent() {
        WithBest field = WithBest.of(List.of("a", "b"), List.of(difference("a", "b", 3, 2, 0.2)), 0.05);

        double t = new TDistribution(12).inverseCumulativeProbability(0.95);
        assertThat(field.candidates().get(0).shortfall().orElseThrow()).isCloseTo(2 * t - 3, within(0.02));
        assertThat(field.candidates().get(1).shortfall().orElseThrow()).isCloseTo(2 * t + 3, within(0.02));
        assertThat(field.candidates()).noneMatch(WithBest.Candidate::best).noneMatch(WithBest.Candidate::out);
    }

    /** t at .975 with 12 degrees of freedom is 2.179: 4.36 standard errors of 2 are just enough, 4.35 not. */
    @Test
    public void theBestIsAboveEveryOther() {
        assertThat(best(4.36)).isTrue();
        assertThat(best(4.35)).isFalse();
    }

    private static boolean best(double estimate) {
        List<Difference> differences = List.of(
                difference("a", "b", 9, 2, 0.001),
                difference("a", "c", estimate, 2, 0.02),
                difference("c", "b", 5, 2, 0.03));
        return WithBest.of(List.of("a", "b", "c"), differences, 0.05)
                .candidates()
                .get(0)
                .best();
    }

    @Test
    public void outIsWhoeverHolmPutsBelowAnother() {
        WithBest field = WithBest.of(
                List.of("a", "b", "c"),
                List.of(
                        difference("a", "b", 9, 2, 0.05),
                        difference("a", "c", 9, 2, 0.049),
                        difference("b", "c", 9, 2, 0.01)),
                0.05);

        assertThat(field.candidates()).extracting(WithBest.Candidate::out).containsExactly(false, false, true);
        assertThat(field.candidates().get(2).outBy()).isEqualTo("b");
    }

    @Test
    public void whatIsNotKnownIsNothingOfAll() {
        Interval none = Interval.undefined(Reason.TOO_FEW_TO_RESAMPLE);
        Estimate unknown = Estimate.undefined(Reason.TOO_FEW_TO_RESAMPLE);
        Difference open = new Difference("a", "b", Estimate.of(50), unknown, 0, none, none, unknown, none);

        WithBest field = WithBest.of(List.of("a", "b"), List.of(open), 0.05);

        assertThat(field.candidates()).noneMatch(WithBest.Candidate::best).noneMatch(WithBest.Candidate::out);
        assertThat(field.candidates()).noneMatch(c -> c.isSafe(1000));
    }

    @Test
    public void refusesAPairThatIsMissing() {
        assertThatIllegalArgumentException()
                .isThrownBy(() -> WithBest.of(List.of("a", "b", "c"), List.of(difference("a", "b", 1, 1, 1)), 0.05));
        assertThatIllegalArgumentException().isThrownBy(() -> WithBest.of(List.of("a"), List.of(), 0.05));
    }

    /** Nothing that decides is drawn at random. */
    @Test
    public void twentySeedsGiveOneField() {
        List<ScoredCell> cells = new java.util.ArrayList<>();
        Random random = new Random(2);
        for (int p = 0; p < 12; p++) {
            for (int r = 0; r < 4; r++) {
                for (int c = 0; c < 3; c++) {
                    cells.add(new ScoredCell("c" + c, "p" + p, "r" + r, 50 + 6 * c + 10 * random.nextGaussian()));
                }
            }
        }
        assertThat(IntStream.range(0, 20)
                        .mapToObj(seed -> Standings.of(
                                        cells,
                                        PromptGroups.byKind(p -> "x"),
                                        new Standings.Options(50, 0.95),
                                        org.mossbank.core.estimate.Resamples.generator(seed))
                                .differences())
                        .distinct())
                .hasSize(1);
    }
}
