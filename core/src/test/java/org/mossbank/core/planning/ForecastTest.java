package org.mossbank.core.planning;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.mossbank.core.decision.Allowance;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.core.decision.Outcome;
import org.mossbank.core.estimate.Resamples;
import org.testng.annotations.Test;

public class ForecastTest {
    private static final int STUDIES = 300;
    private static final double NO_FLOOR = -1;

    private static PlannedStudy study(int promptsAKind, int candidates, int attempts, int raters, int each) {
        return new PlannedStudy(
                List.of(promptsAKind, promptsAKind, promptsAKind, promptsAKind), candidates, attempts, raters, each);
    }

    private static DecisionRule rule(double margin) {
        return new DecisionRule(
                DecisionRule.FloorOn.UPPER_LIMIT,
                margin,
                1,
                DecisionRule.TieBreak.NONE,
                DecisionRule.Strictness.LENIENT);
    }

    private static Forecast forecast(PlannedStudy study, GradingModel model, double floor) {
        return Forecast.of(study, new Forecast.Terms(model, rule(8), floor), STUDIES, Resamples.generator(1));
    }

    private static Forecast good(PlannedStudy study) {
        return forecast(study, GradingModel.GOOD, NO_FLOOR);
    }

    private static double width(Forecast forecast) {
        return forecast.halfWidth().value().orElseThrow();
    }

    @Test
    public void chancesOfEachLeadAddUpToOne() {
        Forecast forecast = forecast(study(3, 3, 1, 4, 3), GradingModel.MIDDLING, 0.5);
        assertThat(forecast.leads()).extracting(Forecast.AtLead::points).containsExactly(0.0, 8.0, 16.0, 24.0);
        assertThat(forecast.leads())
                .allSatisfy(at -> assertThat(at.chances().values().stream()
                                .mapToDouble(c -> c)
                                .sum())
                        .isCloseTo(1, within(1e-9)));
    }

    @Test
    public void moreOfEverythingMakesIntervalsNarrower() {
        double base = width(good(study(4, 3, 1, 4, 3)));
        assertThat(width(good(study(10, 3, 1, 4, 3)))).isLessThan(0.8 * base);
        assertThat(width(good(study(4, 3, 3, 4, 3)))).isLessThan(base);
        assertThat(width(good(study(4, 3, 1, 8, 8)))).isLessThan(base);
    }

    @Test
    public void aLongerLeadIsFoundMoreOften() {
        Forecast forecast = good(study(4, 3, 1, 4, 4));
        assertThat(forecast.leads().get(0).chance(Outcome.RECOMMENDED)).isLessThanOrEqualTo(0.05);
        assertThat(forecast.leads().get(3).chance(Outcome.RECOMMENDED))
                .isGreaterThan(forecast.leads().get(1).chance(Outcome.RECOMMENDED) + 0.2);
    }

    /** Simulated anew at just that lead, with another seed. */
    @Test
    public void theSmallestLeadIsFoundInFourOfFive() {
        PlannedStudy study = study(5, 3, 1, 4, 4);
        double lead = good(study).smallestLead().orElseThrow();
        Forecast.AtLead at = Forecast.at(
                study, new Forecast.Terms(GradingModel.GOOD, rule(lead), NO_FLOOR), 1, 800, Resamples.generator(77));
        // Two standard errors of both simulations.
        assertThat(at.found()).isCloseTo(0.8, within(0.06));
    }

    @Test
    public void guessesAreWithheldWhateverTheFloor() {
        Forecast forecast = forecast(study(2, 3, 1, 3, 3), GradingModel.GUESSING, NO_FLOOR);
        assertThat(forecast.leads())
                .allSatisfy(at -> assertThat(at.chance(Outcome.WITHHELD)).isGreaterThanOrEqualTo(0.95));
    }

    @Test
    public void aHighFloorWithholdsMore() {
        PlannedStudy study = study(4, 3, 1, 4, 3);
        double low = forecast(study, GradingModel.MIDDLING, 0.3).leads().get(0).chance(Outcome.WITHHELD);
        double high =
                forecast(study, GradingModel.MIDDLING, 0.75).leads().get(0).chance(Outcome.WITHHELD);
        assertThat(high).isGreaterThan(low + 0.3);
    }

    @Test
    public void tooFewRatersForTheRuleAreAlwaysWithheld() {
        DecisionRule strict = new DecisionRule(
                DecisionRule.FloorOn.ESTIMATE, 8, 3, DecisionRule.TieBreak.NONE, DecisionRule.Strictness.LENIENT);
        Forecast forecast = Forecast.of(
                study(2, 2, 1, 4, 2),
                new Forecast.Terms(GradingModel.GOOD, strict, NO_FLOOR),
                10,
                Resamples.generator(1));
        assertThat(forecast.leads().get(3).chance(Outcome.WITHHELD)).isCloseTo(1, within(1e-9));
        assertThat(forecast.smallestLead()).isEmpty();
    }

    @Test
    public void kindsMayBeToldApart() {
        PlannedStudy study = new PlannedStudy(List.of(8, 8), 3, 1, 3, 3);
        DecisionRule byKind = rule(4).withAllowance(Allowance.WITH_KINDS);
        Forecast forecast = Forecast.of(
                study, new Forecast.Terms(GradingModel.GOOD, byKind, NO_FLOOR), 200, Resamples.generator(1));
        assertThat(forecast.leads().stream()
                        .mapToDouble(at -> at.chance(Outcome.BY_KIND))
                        .sum())
                .isPositive();
    }

    @Test
    public void sameSeedSameForecast() {
        assertThat(good(study(2, 3, 1, 3, 2))).isEqualTo(good(study(2, 3, 1, 3, 2)));
    }

    /** Nobody grades a prompt beside somebody else: how far raters agree cannot be told, and the rule says so. */
    @Test
    public void oneRaterAnAnswerIsWithheld() {
        Forecast forecast = good(new PlannedStudy(List.of(3, 3), 3, 2, 2, 1));
        assertThat(forecast.leads().get(2).chance(Outcome.WITHHELD)).isCloseTo(1, within(1e-9));
    }

    @Test
    public void refusesWhatCannotBe() {
        assertThatIllegalArgumentException().isThrownBy(() -> new PlannedStudy(List.of(), 2, 1, 2, 1));
        assertThatIllegalArgumentException().isThrownBy(() -> new PlannedStudy(List.of(1), 1, 1, 2, 1));
        assertThatIllegalArgumentException().isThrownBy(() -> new PlannedStudy(List.of(1), 2, 0, 2, 1));
        assertThatIllegalArgumentException().isThrownBy(() -> new PlannedStudy(List.of(1), 2, 1, 2, 3));
        assertThatIllegalArgumentException().isThrownBy(() -> new GradingModel.Part(-1, 0));
        assertThatIllegalArgumentException().isThrownBy(() -> new GradingModel.Part(Double.NaN, 0));
        assertThatIllegalArgumentException()
                .isThrownBy(() -> Forecast.of(
                        study(2, 3, 1, 3, 3),
                        new Forecast.Terms(GradingModel.GOOD, rule(0), 0),
                        10,
                        Resamples.generator(1)));
    }
}
