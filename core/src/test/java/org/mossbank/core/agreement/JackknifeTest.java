package org.mossbank.core.agreement;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.hipparchus.distribution.continuous.TDistribution;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Jackknife;
import org.mossbank.core.estimate.Reason;
import org.testng.annotations.Test;

public class JackknifeTest {
    private static final double LEVEL = 0.95;

    @Test
    public void byHandInTheLog() {
        Interval.Bounds bounds =
                (Interval.Bounds) Jackknife.ofAgreement(Estimate.of(0.5), new double[] {0.4, 0.5, 0.6}, 0.5);

        // by hand: g = log 0.5; pseudo-values 3 g - 2 log 0.6, g, 3 g - 2 log 0.4
        double g = Math.log(0.5);
        double[] pseudo = {3 * g - 2 * Math.log(0.6), g, 3 * g - 2 * Math.log(0.4)};
        double mean = (pseudo[0] + pseudo[1] + pseudo[2]) / 3;
        double squares = 0;
        for (double x : pseudo) {
            squares += (x - mean) * (x - mean);
        }
        double half = Math.sqrt(squares / 6) * new TDistribution(1).inverseCumulativeProbability(0.75);
        assertThat(bounds.low()).isCloseTo(1 - Math.exp(mean + half), within(1e-12));
        assertThat(bounds.high()).isCloseTo(1 - Math.exp(mean - half), within(1e-12));
    }

    @Test
    public void whereWithoutOneAllAgreeTheCoefficientItselfIsUsed() {
        Interval.Bounds bounds =
                (Interval.Bounds) Jackknife.ofAgreement(Estimate.of(0.9), new double[] {1, 0.89, 0.89, 0.89}, LEVEL);

        // by hand: pseudo-values 0.6, 0.93, 0.93, 0.93 with the mean 0.8475; 1.5 degrees of freedom
        double half = Math.sqrt((0.2475 * 0.2475 + 3 * 0.0825 * 0.0825) / 12)
                * new TDistribution(1.5).inverseCumulativeProbability(0.975);
        assertThat(bounds.low()).isCloseTo(0.8475 - half, within(1e-9));
        assertThat(0.8475 + half).isGreaterThan(1);
        assertThat(bounds.high()).as("no coefficient is above 1").isEqualTo(1);
        Interval.Bounds wide =
                (Interval.Bounds) Jackknife.ofAgreement(Estimate.of(0.8), new double[] {1, 0.7, 0.7}, LEVEL);
        assertThat(wide.low()).as("nor below -1").isEqualTo(-1);
    }

    @Test
    public void fullAgreementHasNoInterval() {
        assertThat(Jackknife.ofAgreement(Estimate.of(1), new double[] {1, 1}, LEVEL))
                .isEqualTo(Interval.undefined(Reason.ALL_ALIKE));
        assertThat(Jackknife.ofAgreement(Estimate.of(0.5), new double[] {0.5}, LEVEL))
                .isEqualTo(Interval.undefined(Reason.TOO_FEW_TO_RESAMPLE));
        assertThat(Jackknife.ofAgreement(Estimate.of(0.5), new double[] {0.5, Double.NaN}, LEVEL))
                .isEqualTo(Interval.undefined(Reason.ONE_LEVEL_ONLY));
        assertThat(Jackknife.ofAgreement(Estimate.undefined(Reason.NO_PAIRS), new double[] {0.5, 0.4}, LEVEL))
                .isEqualTo(Interval.undefined(Reason.NO_PAIRS));
    }

    private static List<Rating> ratings(Random random, int prompts) {
        List<Rating> ratings = new ArrayList<>();
        for (int p = 0; p < prompts; p++) {
            double hard = 0.7 * random.nextGaussian();
            for (int a = 0; a < 3; a++) {
                double good = hard + random.nextGaussian();
                for (int r = 0; r < 4; r++) {
                    double seen = 2 + good + 0.3 * r - 0.45 + 0.7 * random.nextGaussian();
                    ratings.add(new Rating(
                            "p" + p + "/" + a, "r" + r, (int) Math.max(0, Math.min(4, Math.round(seen)))));
                }
            }
        }
        return ratings;
    }

    private static String prompt(String unit) {
        return unit.substring(0, unit.indexOf('/'));
    }

    /** Leaving one out by subtraction is leaving it out of the data. */
    @Test
    public void leavingOutIsHavingNever() {
        List<Rating> all = ratings(new Random(4), 6);
        double[] without = KrippendorffAlpha.of(RatingMatrix.ofLevels(all, 4), JackknifeTest::prompt)
                .leaveOneOut(Metric.ORDINAL);
        for (int p = 0; p < 6; p++) {
            String left = "p" + p;
            RatingMatrix rest = RatingMatrix.ofLevels(
                    all.stream().filter(r -> !prompt(r.unit()).equals(left)).toList(), 4);
            assertThat(without[p])
                    .isCloseTo(
                            KrippendorffAlpha.of(rest)
                                    .value(Metric.ORDINAL)
                                    .value()
                                    .orElseThrow(),
                            within(1e-9));
        }
    }

    /**
     * 400 studies of 12 prompts: three standard errors of a share of 0.95 are 0.033. What is to be held is what these raters
     * agree to over 800 other prompts.
     */
    @Test
    public void intervalsHoldWhatTheSameRatersAgreeToElsewhere() {
        RatingMatrix many = RatingMatrix.ofLevels(ratings(new Random(1), 800), 4);
        double alpha = KrippendorffAlpha.of(many).value(Metric.ORDINAL).value().orElseThrow();
        double ac2 = GwetCoefficient.of(many, AgreementWeights.ordinal(5))
                .value()
                .value()
                .orElseThrow();
        int studies = 400;
        int alphas = 0;
        int ac2s = 0;
        for (int s = 0; s < studies; s++) {
            RatingMatrix matrix = RatingMatrix.ofLevels(ratings(new Random(100 + s), 12), 4);
            Interval.Bounds a = (Interval.Bounds)
                    KrippendorffAlpha.of(matrix, JackknifeTest::prompt).interval(Metric.ORDINAL, LEVEL);
            Interval.Bounds b =
                    (Interval.Bounds) GwetCoefficient.of(matrix, AgreementWeights.ordinal(5), JackknifeTest::prompt)
                            .jackknife(LEVEL);
            alphas += a.low() <= alpha && alpha <= a.high() ? 1 : 0;
            ac2s += b.low() <= ac2 && ac2 <= b.high() ? 1 : 0;
        }
        assertThat(alphas / (double) studies).isBetween(0.917, 0.983);
        assertThat(ac2s / (double) studies).isBetween(0.917, 0.983);
    }

    /** by hand: with raters who tell nothing new the interval is the prompts' own, but for its degrees of freedom */
    @Test
    public void otherRatersMakeTheIntervalWider() {
        Estimate alpha = Estimate.of(0.6);
        double[] prompts = {0.55, 0.62, 0.61, 0.58, 0.63, 0.6};
        Interval.Bounds own = (Interval.Bounds) Jackknife.ofAgreement(alpha, prompts, LEVEL);
        Interval.Bounds alike =
                (Interval.Bounds) Jackknife.ofAgreementOfOthers(alpha, prompts, new double[] {0.6, 0.6, 0.6}, LEVEL);
        Interval.Bounds apart =
                (Interval.Bounds) Jackknife.ofAgreementOfOthers(alpha, prompts, new double[] {0.5, 0.6, 0.68}, LEVEL);
        assertThat(alike.high() - alike.low()).isCloseTo(own.high() - own.low(), within(1e-9));
        assertThat(apart.high() - apart.low()).isGreaterThan(1.2 * (own.high() - own.low()));
        assertThat(Jackknife.ofAgreementOfOthers(alpha, prompts, new double[] {0.5, 0.7}, LEVEL))
                .isEqualTo(Interval.undefined(Reason.TOO_FEW_TO_RESAMPLE));
    }
}
