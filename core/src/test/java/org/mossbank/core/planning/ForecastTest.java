package org.mossbank.core.planning;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import org.mossbank.core.comparison.Difference;
import org.mossbank.core.comparison.PromptGroups;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.Resamples;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class ForecastTest {
    private static final double MARGIN = 12;

    private static PlannedStudy study(int promptsAKind, int candidates, int attempts, int raters, int least) {
        return new PlannedStudy(
                List.of(promptsAKind, promptsAKind, promptsAKind, promptsAKind), candidates, attempts, raters, least);
    }

    private static Forecast forecast(PlannedStudy study) {
        return Forecast.of(study, Spread.USUAL, MARGIN, Forecast.Effort.QUICK, Resamples.generator(1));
    }

    private static double of(Estimate estimate) {
        return estimate.value().orElseThrow();
    }

    @DataProvider
    public static Object[][] sizes() {
        return new Object[][] {
            {"whole", study(4, 3, 1, 4, 4)},
            {"incomplete", study(4, 4, 1, 5, 2)},
            {"two attempts", study(3, 3, 2, 4, 3)},
        };
    }

    /** Other studies, other seeds, the whole procedure with far more resamples: what was forecast must come out. */
    @Test(dataProvider = "sizes")
    public void agreesWithSimulatedStudies(String name, PlannedStudy study) {
        Forecast forecast = forecast(study);
        StudySimulation simulation = new StudySimulation(study, Spread.USUAL);
        double[] truth = new double[study.candidates()];
        Arrays.fill(truth, 55);
        truth[0] += MARGIN;
        int studies = 120;
        double width = 0;
        int found = 0;
        int pairs = 0;
        for (int s = 0; s < studies; s++) {
            Standings standings = Standings.of(
                    simulation.cells(truth, Resamples.generator(9000 + s)),
                    PromptGroups.byKind(PlannedStudy::kindOf),
                    new Standings.Options(400, 0.95),
                    Resamples.generator(s));
            for (Difference difference : standings.differences()) {
                Interval.Bounds bounds = (Interval.Bounds) difference.interval();
                width += (bounds.high() - bounds.low())
                        / 2
                        / (studies * standings.differences().size());
                if (difference.higher().equals(StudySimulation.candidate(0))
                        || difference.lower().equals(StudySimulation.candidate(0))) {
                    boolean clear = bounds.low() > 0;
                    found += clear && difference.higher().equals(StudySimulation.candidate(0)) ? 1 : 0;
                    pairs++;
                }
            }
        }
        assertThat(of(forecast.halfWidth())).isCloseTo(width, within(0.1 * width));
        assertThat(of(forecast.chanceFound())).isCloseTo(found / (double) pairs, within(0.12));
    }

    @Test
    public void moreOfEverythingMakesIntervalsNarrower() {
        double base = of(forecast(study(4, 3, 1, 4, 3)).halfWidth());
        assertThat(of(forecast(study(10, 3, 1, 4, 3)).halfWidth())).isLessThan(0.8 * base);
        assertThat(of(forecast(study(4, 3, 3, 4, 3)).halfWidth())).isLessThan(base);
        assertThat(of(forecast(study(4, 3, 1, 8, 8)).halfWidth())).isLessThan(base);
    }

    @Test
    public void correctedIntervalsAreWiderAndAllIsHarderThanOne() {
        Forecast forecast = forecast(study(4, 4, 1, 5, 3));
        assertThat(of(forecast.correctedHalfWidth())).isGreaterThan(of(forecast.halfWidth()));
        assertThat(of(forecast.chanceClear())).isLessThanOrEqualTo(of(forecast.chanceFound()));
    }

    @Test
    public void sameSeedSameForecast() {
        assertThat(forecast(study(2, 3, 1, 3, 2))).isEqualTo(forecast(study(2, 3, 1, 3, 2)));
    }

    /** Nobody grades a prompt beside somebody else: how strict raters are cannot be told, how candidates differ can. */
    @Test
    public void oneRaterAnAnswerStillHasAForecast() {
        PlannedStudy study = new PlannedStudy(List.of(3, 3), 3, 2, 2, 1);
        assertThat(of(forecast(study).halfWidth())).isPositive();
        assertThat(of(forecast(study).chanceClear())).isBetween(0.0, 1.0);
    }

    /** What the quick count takes for the difference of two candidates is what the standings would say. */
    @Test(dataProvider = "sizes")
    public void meansDifferByWhatStandingsSay(String name, PlannedStudy study) {
        StudySimulation simulation = new StudySimulation(study, Spread.USUAL);
        double[] truth = new double[study.candidates()];
        double[] scores = simulation.scores(truth, Resamples.generator(4));
        double[] means = simulation.means(scores);
        for (Difference difference : Standings.differences(
                simulation.cells(truth, Resamples.generator(4)), PromptGroups.byKind(PlannedStudy::kindOf), 0.95)) {
            int higher = Integer.parseInt(difference.higher().substring(1));
            int lower = Integer.parseInt(difference.lower().substring(1));
            assertThat(difference.estimate().value().orElseThrow())
                    .isCloseTo(means[higher] - means[lower], within(1e-9));
        }
    }

    @Test
    public void onePromptHasNoInterval() {
        PlannedStudy one = new PlannedStudy(List.of(1), 2, 1, 3, 3);
        assertThat(forecast(one).halfWidth()).isEqualTo(Estimate.undefined(Reason.TOO_FEW_TO_RESAMPLE));
    }

    @Test
    public void countsWhatHasToBeGraded() {
        assertThat(study(4, 5, 2, 5, 3).gradings()).isEqualTo(16 * 5 * 2 * 3);
    }

    @Test
    public void refusesSizesOutOfRange() {
        assertThatIllegalArgumentException().isThrownBy(() -> study(0, 3, 1, 3, 3));
        assertThatIllegalArgumentException().isThrownBy(() -> study(1, 1, 1, 3, 3));
        assertThatIllegalArgumentException().isThrownBy(() -> study(1, 2, 0, 3, 3));
        assertThatIllegalArgumentException().isThrownBy(() -> study(1, 2, 1, 3, 4));
        assertThatIllegalArgumentException().isThrownBy(() -> new Spread(-1, 0, 0, 0, 0, 0));
        assertThatIllegalArgumentException().isThrownBy(() -> new Spread(Double.NaN, 0, 0, 0, 0, 0));
        assertThatIllegalArgumentException()
                .isThrownBy(() -> Forecast.of(
                        study(2, 3, 1, 3, 3), Spread.USUAL, 0, Forecast.Effort.QUICK, Resamples.generator(1)));
    }
}
