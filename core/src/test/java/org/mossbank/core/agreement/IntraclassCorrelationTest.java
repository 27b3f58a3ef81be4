package org.mossbank.core.agreement;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Reason;
import org.testng.annotations.Test;

public class IntraclassCorrelationTest {
    private static ScoreTable table(double[]... rows) {
        List<ScoreTable.Score> scores = new ArrayList<>();
        for (int u = 0; u < rows.length; u++) {
            for (int r = 0; r < rows[u].length; r++) {
                if (!Double.isNaN(rows[u][r])) {
                    scores.add(new ScoreTable.Score("u" + u, "r" + r, rows[u][r]));
                }
            }
        }
        return ScoreTable.of(scores);
    }

    @Test
    public void twoByTwoByHand() {
        IntraclassCorrelation icc = IntraclassCorrelation.of(table(new double[] {1, 2}, new double[] {4, 3}));

        // by hand: unit means 1.5 and 3.5, rater means 2.5 and 2.5
        assertThat(icc.betweenUnits()).isEqualTo(Estimate.of(4));
        assertThat(icc.withinUnits()).isEqualTo(Estimate.of(0.5));
        assertThat(icc.betweenRaters()).isEqualTo(Estimate.of(0));
        assertThat(icc.residual()).isEqualTo(Estimate.of(1));
        assertThat(icc.oneWay().single().value().orElseThrow()).isCloseTo(3.5 / 4.5, within(1e-12));
        assertThat(icc.agreement().single().value().orElseThrow()).isCloseTo(3 / 4.0, within(1e-12));
        assertThat(icc.consistency().single().value().orElseThrow()).isCloseTo(3 / 5.0, within(1e-12));
        assertThat(icc.consistency().mean().value().orElseThrow()).isCloseTo(3 / 4.0, within(1e-12));
    }

    /** The mean of k raters is one rater's by Spearman and Brown, for each form and its limits. */
    @Test
    public void theMeansFormIsTheSinglesSteppedUp() {
        IntraclassCorrelation icc = IntraclassCorrelation.of(
                table(new double[] {9, 2, 5}, new double[] {6, 1, 3}, new double[] {8, 4, 6}, new double[] {7, 1, 2}));

        for (IntraclassCorrelation.Form form : List.of(icc.oneWay(), icc.agreement(), icc.consistency())) {
            assertThat(form.mean().value().orElseThrow())
                    .isCloseTo(stepUp(form.single().value().orElseThrow()), within(1e-10));
            Interval.Bounds single = (Interval.Bounds) form.singleInterval();
            Interval.Bounds mean = (Interval.Bounds) form.meanInterval();
            assertThat(mean.low()).isCloseTo(stepUp(single.low()), within(1e-9));
            assertThat(mean.high()).isCloseTo(stepUp(single.high()), within(1e-9));
        }
    }

    private static double stepUp(double rho) {
        return 3 * rho / (1 + 2 * rho);
    }

    @Test
    public void unitsThatOneRaterLacksAreLeftOut() {
        ScoreTable table = table(new double[] {1, 2}, new double[] {9, Double.NaN}, new double[] {4, 3});

        assertThat(table.units()).isEqualTo(2);
        assertThat(table.raters()).containsExactly("r0", "r1");
        assertThat(IntraclassCorrelation.of(table).betweenUnits()).isEqualTo(Estimate.of(4));
    }

    @Test
    public void oneUnitIsTooFew() {
        assertThat(IntraclassCorrelation.of(table(new double[] {1, 2}))
                        .agreement()
                        .single())
                .isEqualTo(Estimate.undefined(Reason.TOO_FEW_COMPLETE));
    }

    /** Sums of tenths leave rounding where the residual is 0. */
    @Test
    public void roundingIsNoVariance() {
        IntraclassCorrelation icc = IntraclassCorrelation.of(
                table(new double[] {0.1, 0.4}, new double[] {0.7, 1.0}, new double[] {0.3, 0.6}));

        assertThat(icc.residual()).isEqualTo(Estimate.of(0));
        assertThat(icc.consistency().single()).isEqualTo(Estimate.of(1));
        assertThat(icc.consistency().singleInterval()).isEqualTo(Interval.undefined(Reason.NO_VARIANCE));
    }

    @Test
    public void aRaterScoresAUnitOnce() {
        assertThatThrownBy(() ->
                        ScoreTable.of(List.of(new ScoreTable.Score("u", "r", 1), new ScoreTable.Score("u", "r", 2))))
                .hasMessageContaining("must be single");
    }
}
