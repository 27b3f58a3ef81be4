package org.mossbank.core.planning;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.mossbank.core.comparison.Difference;
import org.mossbank.core.comparison.ScoreGrid;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.decision.Allowance;
import org.mossbank.core.decision.Decision;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.core.decision.Evidence;
import org.mossbank.core.decision.Outcome;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.estimate.Resamples;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** From made-up grades to the outcome: how often the whole procedure says what is not so. */
public class WholeProcedureTest {
    private static final int STUDIES = 600;

    @DataProvider
    public static Object[][] sizes() {
        return new Object[][] {
            {"whole, four candidates", new PlannedStudy(List.of(4, 4, 4, 4), 4, 1, 4, 4)},
            {"incomplete, three candidates", new PlannedStudy(List.of(6, 6, 6, 6), 3, 1, 6, 3)},
        };
    }

    private static Standings standings(StudySimulation simulation, double[] leads, int seed) {
        return Standings.of(
                simulation.draw(leads, -1, Resamples.generator(500 + seed)).whole(),
                new Standings.Options(0, 0.95),
                Resamples.generator(seed));
    }

    private static StudySimulation simulation(PlannedStudy study) {
        return new StudySimulation(study, GradingModel.MIDDLING);
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
        StudySimulation simulation = simulation(study);
        double[] equal = new double[study.candidates()];
        long recommended = IntStream.range(0, STUDIES)
                .filter(s -> outcome(study, standings(simulation, equal, s), 0) == Outcome.RECOMMENDED)
                .count();
        assertThat(recommended / (double) STUDIES).isLessThanOrEqualTo(0.05);
    }

    /** Whoever looks thrice, and stops as soon as one is recommended, is no more often wrong than who waits. */
    @Test
    public void looksTogetherAreNoMoreOftenWrongThanOne() {
        PlannedStudy study = new PlannedStudy(List.of(6, 6, 6, 6), 4, 1, 4, 4);
        StudySimulation simulation = simulation(study);
        List<Double> looks = List.of(1 / 3.0, 2 / 3.0, 1.0);
        int wrong = 0;
        int wrongUnspent = 0;
        for (int s = 0; s < STUDIES; s++) {
            ScoreGrid whole = simulation
                    .draw(new double[study.candidates()], -1, Resamples.generator(500 + s))
                    .whole();
            boolean found = false;
            boolean foundUnspent = false;
            for (int l = 0; l < looks.size(); l++) {
                Standings seen = Standings.forDeciding(first(whole, looks.get(l)), 0.95);
                found |= isRecommended(study, seen, Allowance.OVERALL.at(looks.subList(0, l + 1)));
                foundUnspent |= isRecommended(study, seen, Allowance.OVERALL);
            }
            wrong += found ? 1 : 0;
            wrongUnspent += foundUnspent ? 1 : 0;
        }
        // Two standard errors of so many studies above the allowance.
        assertThat(wrong / (double) STUDIES).isLessThanOrEqualTo(0.068);
        assertThat(wrongUnspent)
                .as("what looking costs that nobody accounts for")
                .isGreaterThan(wrong);
    }

    /** The first prompts of each kind, as many as this share. */
    private static ScoreGrid first(ScoreGrid whole, double share) {
        Set<String> prompts = new TreeSet<>();
        whole.keeping((prompt, rater) -> prompts.add(prompt));
        Map<String, List<String>> byKind = prompts.stream().collect(Collectors.groupingBy(PlannedStudy::kindOf));
        return whole.keeping((prompt, rater) -> {
                    List<String> ofKind = Require.known(byKind, PlannedStudy.kindOf(prompt));
                    return ofKind.indexOf(prompt) < Math.round(share * ofKind.size());
                })
                .orElseThrow();
    }

    private static boolean isRecommended(PlannedStudy study, Standings standings, Allowance allowance) {
        List<Evidence.Contender> contenders = IntStream.range(0, study.candidates())
                .mapToObj(c -> new Evidence.Contender(StudySimulation.candidate(c), OptionalDouble.empty()))
                .toList();
        Evidence evidence = new Evidence(
                Evidence.State.CLEAR, List.of(new Evidence.AnswerRaters("any", 3)), List.of(), standings, contenders);
        DecisionRule rule = new DecisionRule(
                DecisionRule.FloorOn.ESTIMATE,
                0,
                3,
                DecisionRule.TieBreak.NONE,
                DecisionRule.Strictness.LENIENT,
                allowance);
        return Decision.of(rule, evidence).outcome() == Outcome.RECOMMENDED;
    }

    /** Over all pairs of candidates with true differences of their own; the interval is made for other prompts and raters. */
    @Test(dataProvider = "sizes")
    public void intervalsHoldTheTrueDifferenceAsOftenAsTheySay(String name, PlannedStudy study) {
        StudySimulation simulation = simulation(study);
        double[] leads =
                IntStream.range(0, study.candidates()).mapToDouble(c -> 6 * c).toArray();
        double[] truth = Arrays.stream(leads)
                .map(l -> GradingModel.MIDDLING.expectedScore(
                        l, study.promptsByKind().size()))
                .toArray();
        int held = 0;
        int intervals = 0;
        for (int s = 0; s < STUDIES; s++) {
            for (Difference difference : standings(simulation, leads, s).differences()) {
                Interval.Bounds bounds = (Interval.Bounds) difference.interval();
                double real = truth[index(difference.higher())] - truth[index(difference.lower())];
                held += bounds.low() <= real && real <= bounds.high() ? 1 : 0;
                intervals++;
            }
        }
        // Intervals of one study hang together, so the count is less steady than as many coins.
        assertThat(held / (double) intervals).isBetween(0.935, 0.97);
    }

    /** As often as the forecast says, which is of other studies. */
    @Test
    public void aCandidateAheadIsRecommendedAsOftenAsWasForecast() {
        PlannedStudy study = new PlannedStudy(List.of(4, 4, 4, 4), 3, 1, 4, 4);
        double ahead = 20;
        double[] leads = new double[study.candidates()];
        leads[0] = GradingModel.MIDDLING.leadFor(ahead, 4);
        StudySimulation simulation = simulation(study);
        long recommended = IntStream.range(0, STUDIES)
                .filter(s -> outcome(study, standings(simulation, leads, s), 0) == Outcome.RECOMMENDED)
                .count();
        DecisionRule rule = new DecisionRule(
                DecisionRule.FloorOn.ESTIMATE,
                ahead / 2,
                3,
                DecisionRule.TieBreak.NONE,
                DecisionRule.Strictness.LENIENT);
        double forecast = Forecast.of(
                        study, new Forecast.Terms(GradingModel.MIDDLING, rule, -1), STUDIES, Resamples.generator(1))
                .leads()
                .get(2)
                .chance(Outcome.RECOMMENDED);
        assertThat(forecast).isBetween(0.2, 0.98);
        // Two standard errors of the difference of two shares of so many studies.
        assertThat(recommended / (double) STUDIES).isCloseTo(forecast, within(0.06));
    }

    /** What decides is not drawn: whatever seed the chance of standing highest takes, the outcome is one. */
    @Test
    public void twentySeedsGiveOneOutcome() {
        PlannedStudy study = new PlannedStudy(List.of(4, 4, 4, 4), 4, 1, 4, 3);
        StudySimulation simulation = simulation(study);
        for (int s = 0; s < 5; s++) {
            double[] leads = {GradingModel.MIDDLING.leadFor(6.0 * s, 4), 0, 0, 0};
            StudySimulation.Grades grades = simulation.draw(leads, -1, Resamples.generator(s));
            assertThat(IntStream.range(0, 20).mapToObj(seed -> {
                        Standings standings = Standings.of(
                                grades.whole(), new Standings.Options(100, 0.95), Resamples.generator(seed));
                        return List.of(outcome(study, standings, 5), standings.differences());
                    }))
                    .containsOnly(List.of(
                            outcome(study, standings(grades), 5),
                            standings(grades).differences()));
        }
    }

    private static Standings standings(StudySimulation.Grades grades) {
        return Standings.of(grades.whole(), new Standings.Options(100, 0.95), Resamples.generator(99));
    }

    private static int index(String candidate) {
        return Integer.parseInt(candidate.substring(1));
    }
}
