package org.mossbank.core.planning;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.OptionalDouble;
import java.util.stream.IntStream;
import org.mossbank.core.comparison.Difference;
import org.mossbank.core.comparison.PromptGroups;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.decision.Decision;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.core.decision.Evidence;
import org.mossbank.core.decision.Outcome;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Resamples;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** From made-up grades to the outcome: how often the whole procedure says what is not so. */
public class WholeProcedureTest {
    private static final int STUDIES = 120;

    @DataProvider
    public static Object[][] sizes() {
        return new Object[][] {
            {"whole, four candidates", new PlannedStudy(List.of(4, 4, 4, 4), 4, 1, 4, 4)},
            {"incomplete, three candidates", new PlannedStudy(List.of(6, 6, 6, 6), 3, 1, 6, 3)},
        };
    }

    private static Standings standings(PlannedStudy study, double[] truth, int seed) {
        return Standings.of(
                new StudySimulation(study, Spread.USUAL).cells(truth, Resamples.generator(500 + seed)),
                PromptGroups.byKind(PlannedStudy::kindOf),
                new Standings.Options(400, 0.95),
                Resamples.generator(seed));
    }

    private static double[] equal(PlannedStudy study) {
        double[] truth = new double[study.candidates()];
        Arrays.fill(truth, 55);
        return truth;
    }

    private static Outcome outcome(PlannedStudy study, Standings standings, double margin) {
        List<Evidence.Contender> contenders = IntStream.range(0, study.candidates())
                .mapToObj(c -> new Evidence.Contender(StudySimulation.candidate(c), OptionalDouble.empty()))
                .toList();
        Evidence evidence = new Evidence(
                Evidence.State.CLEAR, List.of(new Evidence.AnswerRaters("any", 3)), List.of(), standings, contenders);
        DecisionRule rule = new DecisionRule(
                DecisionRule.FloorOn.ESTIMATE, margin, 3, DecisionRule.TieBreak.NONE, DecisionRule.Strictness.LENIENT);
        return Decision.of(rule, evidence).outcome();
    }

    /** Even with no margin at all, where any difference would do. */
    @Test(dataProvider = "sizes")
    public void equalCandidatesAreHardlyEverRecommended(String name, PlannedStudy study) {
        long recommended = IntStream.range(0, STUDIES)
                .filter(s -> outcome(study, standings(study, equal(study), s), 0) == Outcome.RECOMMENDED)
                .count();
        assertThat(recommended / (double) STUDIES).isLessThanOrEqualTo(0.05);
    }

    /** Over all pairs of candidates with true differences of their own; the interval is made for other prompts and raters. */
    @Test(dataProvider = "sizes")
    public void intervalsHoldTheTrueDifferenceAsOftenAsTheySay(String name, PlannedStudy study) {
        double[] truth = equal(study);
        IntStream.range(0, truth.length).forEach(c -> truth[c] += 4 * c);
        int held = 0;
        int intervals = 0;
        for (int s = 0; s < STUDIES; s++) {
            for (Difference difference : standings(study, truth, s).differences()) {
                Interval.Bounds bounds = (Interval.Bounds) difference.interval();
                double real = truth[index(difference.higher())] - truth[index(difference.lower())];
                held += bounds.low() <= real && real <= bounds.high() ? 1 : 0;
                intervals++;
            }
        }
        // Intervals of one study hang together, so the count is less steady than as many coins.
        assertThat(held / (double) intervals).isBetween(0.925, 0.985);
    }

    /** As often as the forecast says; the rule's own margin is left out, as it would ask for more than a clear lead. */
    @Test
    public void aCandidateAheadIsRecommendedAsOftenAsWasForecast() {
        PlannedStudy study = new PlannedStudy(List.of(4, 4, 4, 4), 3, 1, 4, 4);
        double ahead = 25;
        double[] truth = equal(study);
        truth[0] += ahead;
        long recommended = IntStream.range(0, STUDIES)
                .filter(s -> outcome(study, standings(study, truth, s), 0) == Outcome.RECOMMENDED)
                .count();
        double forecast = Forecast.of(study, Spread.USUAL, ahead, Forecast.Effort.QUICK, Resamples.generator(1))
                .chanceClear()
                .value()
                .orElseThrow();
        assertThat(forecast).isBetween(0.2, 0.98);
        assertThat(recommended / (double) STUDIES).isCloseTo(forecast, within(0.12));
    }

    private static int index(String candidate) {
        return Integer.parseInt(candidate.substring(1));
    }
}
