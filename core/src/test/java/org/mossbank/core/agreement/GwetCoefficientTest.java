package org.mossbank.core.agreement;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Reason;
import org.testng.annotations.Test;

public class GwetCoefficientTest {

    /** Rows are units, letters raters, a dot a gap. */
    private static RatingMatrix matrix(int highest, String... units) {
        List<Rating> ratings = new ArrayList<>();
        for (int u = 0; u < units.length; u++) {
            for (int r = 0; r < units[u].length(); r++) {
                if (units[u].charAt(r) != '.') {
                    ratings.add(new Rating("u" + u, "r" + r, units[u].charAt(r) - '0'));
                }
            }
        }
        return RatingMatrix.ofLevels(ratings, highest);
    }

    private static GwetCoefficient ordinal(RatingMatrix matrix) {
        return GwetCoefficient.of(matrix, AgreementWeights.ordinal(matrix.levels()));
    }

    @Test
    public void byHandForTwoRatersAndTwoLevels() {
        GwetCoefficient ac1 = GwetCoefficient.of(matrix(1, "00", "00", "00", "01"), AgreementWeights.unweighted(2));
        // By hand: pa = 3/4; share of level 1 = 1/8; pe = 2 · 1/8 · 7/8 = 7/32; (24/32 - 7/32) / (25/32) = 17/25.
        assertThat(ac1.value().value().orElseThrow()).isCloseTo(17 / 25.0, within(1e-12));
    }

    @Test
    public void staysHighWhereAlphaCollapses() {
        RatingMatrix alike = matrix(4, "4444", "4444", "4444", "4443", "4444", "4444", "4444", "4444");
        assertThat(ordinal(alike).value().value().orElseThrow()).isGreaterThan(0.95);
        assertThat(KrippendorffAlpha.of(alike).value(Metric.ORDINAL).value().orElseThrow())
                .isLessThan(0.1);
    }

    @Test
    public void allAtOneLevelOfSeveralIsFullAgreement() {
        assertThat(ordinal(matrix(4, "33", "33")).value()).isEqualTo(Estimate.of(1));
    }

    @Test
    public void undefinedWithoutTwoGradesOnAUnitOrWithOneLevel() {
        assertThat(ordinal(matrix(4, "3.", ".2")).value()).isEqualTo(Estimate.undefined(Reason.NO_PAIRS));
        assertThat(ordinal(matrix(0, "00", "00")).value()).isEqualTo(Estimate.undefined(Reason.ONE_LEVEL_ONLY));
        assertThat(ordinal(matrix(4, "3.", ".2")).interval()).isEqualTo(Interval.undefined(Reason.NO_PAIRS));
    }

    @Test
    public void oneUnitHasNoStandardError() {
        assertThat(ordinal(matrix(4, "34")).standardError()).isEqualTo(Estimate.undefined(Reason.TOO_FEW_TO_RESAMPLE));
    }

    @Test
    public void neitherOrderNorNamesOfRatersMatter() {
        double first = ordinal(matrix(4, "012", "344", "2.3")).value().value().orElseThrow();
        double permuted =
                ordinal(matrix(4, "210", "443", "3.2")).value().value().orElseThrow();
        assertThat(permuted).isCloseTo(first, within(1e-12));
    }

    @Test
    public void turningTheScaleRoundChangesNothing() {
        double up = ordinal(matrix(4, "012", "344", "223")).value().value().orElseThrow();
        double down = ordinal(matrix(4, "432", "100", "221")).value().value().orElseThrow();
        assertThat(down).isCloseTo(up, within(1e-12));
    }

    @Test
    public void leavingUnitsOutGivesAboutTheAnalyticInterval() {
        String[] units = new String[80];
        java.util.Random random = new java.util.Random(4);
        for (int u = 0; u < units.length; u++) {
            int base = random.nextInt(5);
            units[u] = "" + base + Math.min(4, base + random.nextInt(2)) + Math.max(0, base - random.nextInt(2));
        }
        GwetCoefficient gwet = ordinal(matrix(4, units));
        Interval.Bounds analytic = (Interval.Bounds) gwet.interval();
        Interval.Bounds jackknife = (Interval.Bounds) gwet.jackknife(0.95);
        assertThat(jackknife.low()).isCloseTo(analytic.low(), within(0.03));
        assertThat(jackknife.high()).isCloseTo(analytic.high(), within(0.03));
    }

    @Test
    public void clustersAreLeftOutWhole() {
        RatingMatrix matrix = matrix(4, "44", "44", "04", "04");
        GwetCoefficient byPrompt = GwetCoefficient.of(
                matrix, AgreementWeights.ordinal(5), unit -> unit.compareTo("u2") < 0 ? "good" : "bad");
        assertThat(byPrompt.clusterCount()).isEqualTo(2);
        assertThat(byPrompt.value()).isEqualTo(ordinal(matrix).value());
        // Without one cluster all agree, without the other none: the coefficient itself is used.
        Interval.Bounds bounds = (Interval.Bounds) byPrompt.jackknife(0.95);
        double value = byPrompt.value().value().orElseThrow();
        assertThat(bounds.low()).isLessThan(value);
        assertThat(bounds.high()).isGreaterThan(value);
    }
}
