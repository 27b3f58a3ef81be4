package org.mossbank.core.severity;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import org.mossbank.core.comparison.AdjustedMeans;
import org.mossbank.core.comparison.ScoredCell;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.Resamples;
import org.testng.annotations.Test;

public class SeverityTest {
    private static List<RaterSeverity> severity(List<GradedUnit> grades) {
        return Severity.of(grades, 200, 0.95, Resamples.generator(1));
    }

    private static GradedUnit grade(String unit, String rater, int level) {
        return new GradedUnit("p" + unit.charAt(0), unit, rater, level, 4);
    }

    @Test
    public void strictRaterStandsOutEvenOnOtherAnswers() {
        // "low" always grades one below the others; the answers it shares with each are different ones.
        List<GradedUnit> grades = List.of(
                grade("a1", "low", 1),
                grade("a1", "one", 2),
                grade("b1", "low", 3),
                grade("b1", "two", 4),
                grade("c1", "one", 0),
                grade("c1", "two", 0));
        // By hand: effects e with e_one - e_low = 1, e_two - e_low = 1, e_one = e_two, sum 0: e_low = -2/3.
        assertThat(severity(grades).get(0).severity().value().orElseThrow()).isCloseTo(2 / 3.0, within(1e-12));
        assertThat(severity(grades).get(1).severity().value().orElseThrow()).isCloseTo(-1 / 3.0, within(1e-12));
    }

    @Test
    public void agreesWithTheGeneralLeastSquaresOfTheComparison() {
        List<GradedUnit> grades = new ArrayList<>();
        List<ScoredCell> cells = new ArrayList<>();
        java.util.Random random = new java.util.Random(9);
        for (int u = 0; u < 12; u++) {
            for (int r = 0; r < 4; r++) {
                if (random.nextDouble() < 0.7) {
                    int level = random.nextInt(5);
                    grades.add(grade((char) ('a' + u) + "", "r" + r, level));
                    // The rater stands in the candidate's column, everything has one rater: the same two-way model.
                    cells.add(new ScoredCell("r" + r, "u" + u, "all", level));
                }
            }
        }
        AdjustedMeans means = AdjustedMeans.of(cells);
        double average = means.means().values().stream()
                .mapToDouble(e -> e.value().orElseThrow())
                .average()
                .orElseThrow();
        for (RaterSeverity rater : severity(grades)) {
            double effect = means.means().get(rater.rater()).value().orElseThrow() - average;
            assertThat(rater.severity().value().orElseThrow()).isCloseTo(-effect, within(1e-10));
            assertThat(rater.interval()).isInstanceOf(Interval.Bounds.class);
        }
    }

    @Test
    public void undefinedWhenNothingTiesTheRatersTogether() {
        List<GradedUnit> grades = List.of(grade("a1", "one", 1), grade("b1", "two", 4));
        assertThat(severity(grades))
                .extracting(RaterSeverity::severity)
                .containsOnly(Estimate.undefined(Reason.NOT_CONNECTED));
        assertThat(severity(List.of())).isEmpty();
    }

    @Test
    public void countsGradesAtTheEnds() {
        List<GradedUnit> grades =
                List.of(grade("a1", "x", 0), grade("a1", "y", 1), grade("b1", "x", 4), grade("b1", "y", 4));
        assertThat(severity(grades)).extracting(RaterSeverity::shareAtEnds).containsExactly(1.0, 0.5);
    }
}
