package org.mossbank.server.study;

import jakarta.validation.Valid;
import jakarta.validation.constraints.AssertTrue;
import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.estimate.Resamples;
import org.mossbank.core.planning.BestUse;
import org.mossbank.core.planning.Forecast;
import org.mossbank.core.planning.PlannedStudy;
import org.mossbank.core.planning.Withholding;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.shared.HeavyWork;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;

/** How much is enough: what a study of some size could show, by simulation. Nothing is kept. */
@Service
class ForecastService {
    private static final int MOST_PROMPTS = 120;
    private static final int MOST_AN_ANSWER = 6;
    private static final int MINUTES_AN_HOUR = 60;
    /** What the simulation takes for a margin; a rule may have less or more. */
    private static final double LEAST_MARGIN = 0.5;

    private static final double MOST_MARGIN = 40;
    private static final int FEW_STUDIES = 60;
    private static final int MANY_STUDIES = 800;
    private static final int STUDIES_A_WAY = 150;
    /** Gradings made up for one lead, at most: of a large study fewer are made up, and it is said how many. */
    private static final long MOST_GRADINGS = 400_000;

    private static final int LEAST_STUDIES = 20;

    private final Studies studies;
    private final HeavyWork heavy;

    ForecastService(Studies studies, HeavyWork heavy) {
        this.studies = studies;
        this.heavy = heavy;
    }

    /** How sure the chances are to be. */
    enum Effort {
        /** At once, right to about 6 points of 100. */
        FIRST,
        /** Within a second, right to about 2. */
        FULL
    }

    /**
     * @param promptsByKind  prompts of each kind
     * @param ratersAnAnswer how many raters grade each answer
     * @param minutes        of grading an answer takes
     * @param rule           as it would be closed
     */
    record PlannedSize(
            @NotNull @Size(min = 1, max = 12) List<@NotNull @Min(1) @Max(60) Integer> promptsByKind,
            @Min(2) @Max(10) int candidates,
            @Min(1) @Max(5) int attempts,
            @Min(2) @Max(24) int raters,
            @Min(1) @Max(24) int ratersAnAnswer,
            @DecimalMin("0.1") @DecimalMax("600") double minutes,
            @NotNull KeptForecast.GradedBy gradedBy,
            @NotNull Effort effort,
            @NotNull @Valid RuleTerms rule) {

        @AssertTrue(message = "must not be more than there are raters")
        boolean isRatersAnAnswerThere() {
            return ratersAnAnswer <= raters;
        }

        @AssertTrue(message = "must not be more than 120 together")
        boolean isFewEnough() {
            return promptsByKind == null
                    || promptsByKind.stream()
                                    .filter(Objects::nonNull)
                                    .mapToLong(Integer::longValue)
                                    .sum()
                            <= MOST_PROMPTS;
        }

        PlannedStudy study() {
            return new PlannedStudy(promptsByKind, candidates, attempts, raters, ratersAnAnswer);
        }

        Forecast.Terms terms() {
            DecisionRule own = rule.decisionRule();
            return new Forecast.Terms(
                    gradedBy.model(),
                    new DecisionRule(
                            own.floorOn(),
                            Math.min(MOST_MARGIN, Math.max(LEAST_MARGIN, own.margin())),
                            own.minimumRaters(),
                            own.tieBreak(),
                            own.strictness(),
                            rule.allowanceAtTheLastLook()),
                    rule.agreementFloor());
        }

        double hours() {
            return study().gradings() * minutes / MINUTES_AN_HOUR;
        }
    }

    /**
     * What such a study could show.
     *
     * @param halfWidth    of the 95 % interval for a difference, in points
     * @param leads        chances at 0, 1, 2 and 3 margins
     * @param smallestLead points that are recommended in 80 % of studies; absent if even 40 are not
     * @param gradings     answers graded, each as often as it has raters
     * @param hours        of grading in all
     * @param hoursARater  of grading for each rater
     * @param studies      simulated at each lead
     */
    record ForecastView(
            Figure halfWidth,
            List<KeptForecast.LeadView> leads,
            @Nullable Double smallestLead,
            int gradings,
            double hours,
            double hoursARater,
            int studies) {}

    /** How often a reading of the floor withholds, with each sort of raters. */
    record WithholdingView(DecisionRule.FloorOn floorOn, double good, double middling, double guessing) {}

    /**
     * One way to spend the same hours.
     *
     * @param found    chance that a lead of two margins is recommended
     * @param withheld chance that nothing is, for lack of agreement
     */
    record WayView(int promptsAKind, int ratersAnAnswer, int attempts, double hours, double found, double withheld) {}

    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public ForecastView forecast(StudyId study, PlannedSize size) {
        long seed = studies.get(study).seed();
        PlannedStudy planned = size.study();
        int each = studies(size.effort() == Effort.FIRST ? FEW_STUDIES : MANY_STUDIES, planned);
        Forecast forecast = heavy.run(() -> Forecast.of(planned, size.terms(), each, Resamples.generator(seed)));
        return new ForecastView(
                Figure.of(forecast.halfWidth()),
                forecast.leads().stream().map(KeptForecast.LeadView::of).toList(),
                forecast.smallestLead().isPresent() ? forecast.smallestLead().getAsDouble() : null,
                planned.gradings(),
                size.hours(),
                size.hours() / planned.raters(),
                each);
    }

    /** In full, as it is kept with a brief that is closed. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public KeptForecast kept(StudyId study, PlannedSize size) {
        long seed = studies.get(study).seed();
        PlannedStudy planned = size.study();
        int each = studies(MANY_STUDIES, planned);
        Forecast forecast = heavy.run(() -> Forecast.of(planned, size.terms(), each, Resamples.generator(seed)));
        return new KeptForecast(
                size.promptsByKind().stream().mapToInt(Integer::intValue).sum(),
                size.candidates(),
                size.attempts(),
                size.raters(),
                size.ratersAnAnswer(),
                size.gradedBy(),
                size.terms().rule().margin(),
                forecast.leads().stream().map(KeptForecast.LeadView::of).toList(),
                forecast.smallestLead().isPresent() ? forecast.smallestLead().getAsDouble() : null,
                each);
    }

    private static int studies(int wanted, PlannedStudy size) {
        return (int) Math.max(LEAST_STUDIES, Math.min(wanted, MOST_GRADINGS / size.gradings()));
    }

    /** By each reading, for the lead who chooses one. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public List<WithholdingView> withholding(StudyId study, PlannedSize size) {
        long seed = studies.get(study).seed();
        return heavy.run(() -> {
            Map<DecisionRule.FloorOn, Double> good = withholding(size, KeptForecast.GradedBy.GOOD, seed);
            Map<DecisionRule.FloorOn, Double> middling = withholding(size, KeptForecast.GradedBy.MIDDLING, seed);
            Map<DecisionRule.FloorOn, Double> guessing = withholding(size, KeptForecast.GradedBy.GUESSING, seed);
            return Arrays.stream(DecisionRule.FloorOn.values())
                    .map(on -> new WithholdingView(
                            on, Require.known(good, on), Require.known(middling, on), Require.known(guessing, on)))
                    .toList();
        });
    }

    private static Map<DecisionRule.FloorOn, Double> withholding(
            PlannedSize size, KeptForecast.GradedBy by, long seed) {
        Forecast.Terms terms = size.terms();
        return Withholding.of(
                size.study(),
                by.model(),
                terms.rule(),
                terms.floor(),
                studies(MANY_STUDIES, size.study()),
                Resamples.generator(seed));
    }

    /** The same hours spent otherwise, best first. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public List<WayView> uses(StudyId study, PlannedSize size) {
        long seed = studies.get(study).seed();
        BestUse.Means means = new BestUse.Means(
                size.hours(),
                size.minutes(),
                size.candidates(),
                size.raters(),
                size.promptsByKind().size());
        return heavy
                .run(() -> BestUse.of(
                        means,
                        size.terms(),
                        MOST_PROMPTS,
                        MOST_AN_ANSWER,
                        studies(STUDIES_A_WAY, size.study()),
                        Resamples.generator(seed)))
                .stream()
                .map(w -> new WayView(
                        w.study().promptsByKind().get(0),
                        w.study().ratersAnAnswer(),
                        w.study().attempts(),
                        w.hours(),
                        w.found(),
                        w.withheld()))
                .toList();
    }
}
