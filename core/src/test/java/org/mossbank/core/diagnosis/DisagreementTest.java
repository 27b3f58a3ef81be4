package org.mossbank.core.diagnosis;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.mossbank.core.agreement.KrippendorffAlpha;
import org.mossbank.core.agreement.Metric;
import org.mossbank.core.agreement.Rating;
import org.mossbank.core.agreement.RatingMatrix;
import org.testng.annotations.Test;

public class DisagreementTest {
    private static RatingMatrix matrix(List<Rating> ratings) {
        return RatingMatrix.ofLevels(ratings, 4);
    }

    private static Disagreement of(List<Rating> ratings) {
        return Disagreement.of(matrix(ratings), u -> u.substring(0, 1));
    }

    private static List<Rating> some() {
        Random random = new Random(4);
        List<Rating> all = new ArrayList<>();
        for (String prompt : List.of("p", "q", "s")) {
            for (int a = 0; a < 8; a++) {
                int truth = random.nextInt(5);
                for (String rater : List.of("ann", "ben", "cay")) {
                    // Ben is off on one prompt alone.
                    int off = rater.equals("ben") && prompt.equals("q") ? 2 : random.nextInt(4) == 0 ? 1 : 0;
                    all.add(new Rating(prompt + a, rater, Math.min(4, Math.max(0, truth - off))));
                }
            }
        }
        return all;
    }

    @Test
    public void sharesAddUpToAllOfIt() {
        Disagreement found = of(some());
        for (List<Disagreement.Share> shares : List.of(found.prompts(), found.raterPairs(), found.levelPairs())) {
            assertThat(shares.stream().mapToDouble(Disagreement.Share::share).sum())
                    .isCloseTo(1, within(1e-9));
            assertThat(shares)
                    .extracting(Disagreement.Share::share)
                    .isSortedAccordingTo((a, b) -> Double.compare(b, a));
        }
        assertThat(found.prompts()).extracting(Disagreement.Share::first).startsWith("q");
        assertThat(found.raterPairs().get(0).first() + found.raterPairs().get(0).second())
                .contains("ben");
        assertThat(found.raterPairs().get(2).first() + found.raterPairs().get(2).second())
                .isEqualTo("anncay");
    }

    /** Two answers of two grades each: 0 and 1, and 3 and 3. */
    @Test
    public void sharesAreThoseOfAlphasOwnSum() {
        Disagreement found = of(List.of(
                new Rating("p1", "ann", 0),
                new Rating("p1", "ben", 1),
                new Rating("q1", "ann", 3),
                new Rating("q1", "ben", 3)));
        // by hand: all of it lies in the one pair that parts
        assertThat(found.prompts().get(0)).isEqualTo(new Disagreement.Share("p", "", 1, 1));
        assertThat(found.prompts().get(1)).isEqualTo(new Disagreement.Share("q", "", 0, 1));
        assertThat(found.levelPairs().get(0)).isEqualTo(new Disagreement.Share("0", "1", 1, 1));
    }

    @Test
    public void whatParsMostWouldHelpMostAsOneLevel() {
        // Levels 1 and 2 are mixed up, and nothing else.
        List<Rating> ratings = new ArrayList<>();
        for (int a = 0; a < 20; a++) {
            int level = a % 4;
            ratings.add(new Rating("p" + a, "ann", level));
            ratings.add(new Rating("p" + a, "ben", level == 1 ? 2 : level == 2 ? 1 : level));
        }
        Disagreement found = of(ratings);
        assertThat(found.levelPairs().get(0).first()).isEqualTo("1");
        assertThat(found.levelPairs().get(0).second()).isEqualTo("2");
        assertThat(found.merged().get(0).lower()).isEqualTo(1);
        assertThat(found.merged().get(0).alpha().value().orElseThrow()).isEqualTo(1);
        double now = KrippendorffAlpha.of(matrix(ratings))
                .value(Metric.ORDINAL)
                .value()
                .orElseThrow();
        assertThat(now).isLessThan(0.9);
    }

    @Test
    public void whereAllAgreeNothingContributes() {
        Disagreement found = of(List.of(new Rating("p1", "ann", 2), new Rating("p1", "ben", 2)));
        assertThat(found.prompts()).isEmpty();
        assertThat(found.levelPairs()).isEmpty();
    }

    @Test
    public void eachRatersUseOfTheScaleIsCounted() {
        List<UseOfScale> use = UseOfScale.of(
                matrix(List.of(new Rating("p1", "ann", 0), new Rating("p2", "ann", 0), new Rating("p1", "ben", 4))));
        assertThat(use)
                .containsExactly(
                        new UseOfScale("ann", List.of(2, 0, 0, 0, 0)), new UseOfScale("ben", List.of(0, 0, 0, 0, 1)));
    }
}
