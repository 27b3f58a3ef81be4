package org.mossbank.core.planning;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.stream.IntStream;
import org.mossbank.core.agreement.KrippendorffAlpha;
import org.mossbank.core.comparison.Standing;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.estimate.Resamples;
import org.testng.annotations.Test;

public class GradingModelTest {
    private static final PlannedStudy STUDY = new PlannedStudy(List.of(6, 6, 6, 6), 3, 1, 5, 3);

    /** Over many studies candidates stand, on average, where the model says that they do. */
    @Test
    public void expectedScoresAreThoseOfManyStudies() {
        double lead = GradingModel.MIDDLING.leadFor(12, 4);
        StudySimulation simulation = new StudySimulation(STUDY, GradingModel.MIDDLING);
        double[] sums = new double[2];
        int studies = 150;
        for (int s = 0; s < studies; s++) {
            Standings standings = Standings.of(
                    simulation
                            .draw(new double[] {lead, 0, 0}, 0, Resamples.generator(s))
                            .whole(),
                    new Standings.Options(0, 0.95),
                    Resamples.generator(s));
            for (Standing standing : standings.standings()) {
                int c = Math.min(1, Integer.parseInt(standing.candidate().substring(1)));
                sums[c] += standing.adjusted().value().orElseThrow() / studies / (c + 1);
            }
        }
        // A mean of 24 prompts has a standard error of about 4 points; of 150 studies 0.35.
        assertThat(sums[1]).isCloseTo(GradingModel.MIDDLING.expectedScore(0, 4), within(1.0));
        assertThat(sums[0] - sums[1]).isCloseTo(12, within(1.2));
    }

    @Test
    public void theLeadIsWhatWasAskedFor() {
        for (GradingModel model : List.of(GradingModel.GOOD, GradingModel.MIDDLING)) {
            double lead = model.leadFor(15, 4);
            assertThat(model.expectedScore(lead, 4) - model.expectedScore(0, 4)).isCloseTo(15, within(1e-6));
        }
        assertThat(GradingModel.GUESSING.expectedScore(0, 4)).isEqualTo(50);
    }

    /** What a criterion's alpha is said to be, with each sort of raters; from many prompts. */
    @Test
    public void ratersAgreeAsFarAsIsSaid() {
        assertThat(alpha(GradingModel.MIDDLING)).isCloseTo(0.58, within(0.03));
        assertThat(alpha(GradingModel.GOOD)).isCloseTo(0.73, within(0.03));
        assertThat(alpha(GradingModel.GUESSING)).isCloseTo(0, within(0.03));
    }

    private static double alpha(GradingModel model) {
        StudySimulation simulation = new StudySimulation(new PlannedStudy(List.of(20, 20, 20, 20), 5, 1, 8, 4), model);
        return IntStream.range(0, 10)
                .mapToObj(s -> simulation.draw(new double[5], 0, Resamples.generator(s)))
                .flatMap(g -> g.agreement().stream())
                .mapToDouble(a -> a.coefficient().value().orElseThrow())
                .average()
                .orElseThrow();
    }

    @Test
    public void countsGiveTheAlphaOfTheGrades() {
        // by hand: 2 units of 2 grades; 0 with 0, and 0 with 1: alpha = 1 - (n - 1) Do / De = 1 - 3 · 1 / 3
        KrippendorffAlpha alpha =
                KrippendorffAlpha.ofCounts(2, List.of(List.of(new int[] {2, 0}), List.of(new int[] {1, 1})));
        assertThat(alpha.value(org.mossbank.core.agreement.Metric.NOMINAL)
                        .value()
                        .orElseThrow())
                .isCloseTo(0, within(1e-12));
    }
}
