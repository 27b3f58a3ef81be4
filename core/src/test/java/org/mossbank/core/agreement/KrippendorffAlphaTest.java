package org.mossbank.core.agreement;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.Resamples;
import org.testng.annotations.Test;

public class KrippendorffAlphaTest {
    private static final int HIGHEST = 4;

    private static List<Rating> someRatings(long seed, int units, int raters) {
        Random random = new Random(seed);
        List<Rating> ratings = new ArrayList<>();
        for (int u = 0; u < units; u++) {
            int truth = random.nextInt(HIGHEST + 1);
            for (int r = 0; r < raters; r++) {
                if (random.nextDouble() < 0.8) {
                    int level = Math.max(0, Math.min(HIGHEST, truth + random.nextInt(3) - 1));
                    ratings.add(new Rating("u" + u, "r" + r, level));
                }
            }
        }
        return ratings;
    }

    private static double alpha(List<Rating> ratings, Metric metric) {
        return KrippendorffAlpha.of(RatingMatrix.ofLevels(ratings, HIGHEST))
                .value(metric)
                .value()
                .orElseThrow();
    }

    @Test
    public void twoUnitsByHand() {
        // Units {0,0} and {0,1}: n = 4, o_01 = 1, n_0 = 3, n_1 = 1; by hand 1 - (4 - 1) * 1 / (3 * 1) = 0.
        List<Rating> ratings = List.of(
                new Rating("a", "x", 0), new Rating("a", "y", 0), new Rating("b", "x", 0), new Rating("b", "y", 1));
        assertThat(alpha(ratings, Metric.NOMINAL)).isCloseTo(0, within(1e-15));
    }

    @Test
    public void sameForAnyOrderAndAnyNamesOfRaters() {
        List<Rating> ratings = someRatings(1, 30, 4);
        List<Rating> renamed = new ArrayList<>(ratings.stream()
                .map(r -> new Rating(
                        r.unit(), "z" + (9 - Integer.parseInt(r.rater().substring(1))), r.category()))
                .toList());
        Collections.shuffle(renamed, new Random(3));
        for (Metric metric : Metric.values()) {
            assertThat(alpha(renamed, metric)).isCloseTo(alpha(ratings, metric), within(1e-12));
        }
    }

    @Test
    public void sameWhenTheScaleIsTurnedRound() {
        List<Rating> ratings = someRatings(2, 30, 3);
        List<Rating> turned = ratings.stream()
                .map(r -> new Rating(r.unit(), r.rater(), HIGHEST - r.category()))
                .toList();
        for (Metric metric : Metric.values()) {
            assertThat(alpha(turned, metric)).isCloseTo(alpha(ratings, metric), within(1e-12));
        }
    }

    @Test
    public void unitsWithOneGradeDoNotCount() {
        List<Rating> ratings = someRatings(3, 20, 3);
        List<Rating> more = new ArrayList<>(ratings);
        more.add(new Rating("alone", "r0", 4));
        assertThat(alpha(more, Metric.ORDINAL)).isEqualTo(alpha(ratings, Metric.ORDINAL));
    }

    @Test
    public void undefinedWithReasons() {
        assertThat(KrippendorffAlpha.of(RatingMatrix.ofLevels(List.of(), HIGHEST))
                        .value(Metric.ORDINAL))
                .isEqualTo(Estimate.undefined(Reason.NO_PAIRS));
        List<Rating> alike = List.of(new Rating("a", "x", 2), new Rating("a", "y", 2));
        assertThat(KrippendorffAlpha.of(RatingMatrix.ofLevels(alike, HIGHEST)).value(Metric.ORDINAL))
                .isEqualTo(Estimate.undefined(Reason.ONE_LEVEL_ONLY));
    }

    @Test
    public void clustersAreDrawnWhole() {
        List<Rating> ratings = someRatings(4, 40, 3);
        RatingMatrix matrix = RatingMatrix.ofLevels(ratings, HIGHEST);
        KrippendorffAlpha byPrompt = KrippendorffAlpha.of(matrix, u -> "p" + Integer.parseInt(u.substring(1)) / 4);
        assertThat(byPrompt.clusterCount()).isEqualTo(10);
        assertThat(byPrompt.value(Metric.ORDINAL))
                .isEqualTo(KrippendorffAlpha.of(matrix).value(Metric.ORDINAL));
        List<Rating> firstPrompt = ratings.stream()
                .filter(r -> Integer.parseInt(r.unit().substring(1)) < 4)
                .toList();
        // The same cluster drawn ten times: alpha with every weight tenfold, by hand from the triangle's definition.
        double once = alpha(firstPrompt, Metric.INTERVAL);
        long pairable = firstPrompt.stream()
                .filter(r -> firstPrompt.stream()
                                .filter(o -> o.unit().equals(r.unit()))
                                .count()
                        > 1)
                .count();
        double tenfold = 1 - (1 - once) * (10.0 * pairable - 1) / (10.0 * (pairable - 1));
        assertThat(byPrompt.valueOf(Metric.INTERVAL, new int[10]).value().orElseThrow())
                .isCloseTo(tenfold, within(1e-12));
    }

    @Test
    public void bootstrapHangsOnTheSeedAlone() {
        KrippendorffAlpha alpha = KrippendorffAlpha.of(RatingMatrix.ofLevels(someRatings(5, 25, 3), HIGHEST));
        Interval first =
                alpha.bootstrap(Metric.ORDINAL, 500, Resamples.generator(7)).percentileInterval(0.95);
        Interval again =
                alpha.bootstrap(Metric.ORDINAL, 500, Resamples.generator(7)).percentileInterval(0.95);
        Interval other =
                alpha.bootstrap(Metric.ORDINAL, 500, Resamples.generator(8)).percentileInterval(0.95);
        assertThat(again).isEqualTo(first).isNotEqualTo(other);
    }

    @Test
    public void refusesTwoGradesOfOneRaterForOneUnit() {
        assertThatIllegalArgumentException()
                .isThrownBy(() -> RatingMatrix.ofLevels(List.of(new Rating("a", "x", 1), new Rating("a", "x", 2)), 4))
                .withMessageContaining("single");
        assertThatIllegalArgumentException()
                .isThrownBy(() -> RatingMatrix.ofLevels(List.of(new Rating("a", "x", 5)), 4))
                .withMessageContaining("below 5");
    }
}
