package org.mossbank.core.diagnosis;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Reason;
import org.testng.annotations.Test;

public class InfluenceTest {
    /** Answers to twelve prompts by three raters, each at a place of its own, with so many points for each place. */
    private static List<Influence.Observation> observations(double slope, double noise, long seed) {
        Random random = new Random(seed);
        List<Influence.Observation> all = new ArrayList<>();
        for (int p = 0; p < 12; p++) {
            for (int c = 0; c < 4; c++) {
                double answer = 20 * random.nextGaussian();
                for (int r = 0; r < 3; r++) {
                    int place = random.nextInt(4);
                    double score = 50 + answer + 5 * r + slope * place + noise * random.nextGaussian();
                    all.add(new Influence.Observation("p" + p + "c" + c, "r" + r, "p" + p, place, score));
                }
            }
        }
        return all;
    }

    @Test
    public void whatMovesGradesIsFoundExactlyWhereNothingElseDoes() {
        Influence found = Influence.of(observations(-2.5, 0, 1), 0.95);
        assertThat(found.slope().value().orElseThrow()).isCloseTo(-2.5, within(1e-7));
    }

    @Test
    public void intervalsHoldWhatWasPutIn() {
        int held = 0;
        int studies = 200;
        for (int s = 0; s < studies; s++) {
            Interval.Bounds b = (Interval.Bounds)
                    Influence.of(observations(1.5, 8, s), 0.95).interval();
            held += b.low() <= 1.5 && 1.5 <= b.high() ? 1 : 0;
        }
        // Two standard errors of 200 coins of 95 %, and a jackknife that is a little too wide.
        assertThat(held / (double) studies).isBetween(0.915, 0.99);
    }

    /** Clusters beyond fifty are left out in fifty groups: the interval stays about as wide as the data make it. */
    @Test
    public void manyClustersAreLeftOutInGroups() {
        Random random = new Random(5);
        List<Influence.Observation> many = new ArrayList<>();
        for (int p = 0; p < 400; p++) {
            for (int r = 0; r < 3; r++) {
                int place = random.nextInt(4);
                many.add(new Influence.Observation(
                        "p" + p, "r" + r, "p" + p, place, 2.0 * place + 10 * random.nextGaussian()));
            }
        }
        Interval.Bounds b = (Interval.Bounds) Influence.of(many, 0.95).interval();
        // by hand: a slope over 800 free scores, places of variance 1.25: sd 10 / sqrt(800 · 1.25), each side two of it
        assertThat(b.high() - b.low()).isBetween(0.9, 1.7);
        assertThat(b.low()).isLessThan(2);
        assertThat(b.high()).isGreaterThan(2);
    }

    @Test
    public void whatNeverChangesTellsNothing() {
        List<Influence.Observation> still = observations(1, 1, 1).stream()
                .map(o -> new Influence.Observation(o.first(), o.second(), o.cluster(), 3, o.score()))
                .toList();
        assertThat(Influence.of(still, 0.95).slope()).isEqualTo(Estimate.undefined(Reason.CONSTANT));
        assertThat(Influence.of(List.of(), 0.95).slope()).isEqualTo(Estimate.undefined(Reason.NO_DATA));
    }
}
