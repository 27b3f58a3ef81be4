package org.mossbank.server.study;

import jakarta.validation.constraints.AssertTrue;
import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.List;
import org.mossbank.core.estimate.Resamples;
import org.mossbank.core.planning.Forecast;
import org.mossbank.core.planning.PlannedStudy;
import org.mossbank.core.planning.Spread;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Figure;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;

/** How much is enough: what a study of some size could show, by simulation. Nothing is kept. */
@Service
class ForecastService {
    private static final int MOST_PROMPTS = 120;
    private static final int MINUTES_AN_HOUR = 60;

    private final Studies studies;

    ForecastService(Studies studies) {
        this.studies = studies;
    }

    /**
     * @param promptsByKind  prompts of each kind
     * @param ratersAnAnswer how many raters grade each answer
     * @param minutes        of grading an answer takes
     * @param margin         the true difference that is to be found, in points
     */
    record PlannedSize(
            @NotNull @Size(min = 1, max = 12) List<@NotNull @Min(1) @Max(60) Integer> promptsByKind,
            @Min(2) @Max(10) int candidates,
            @Min(1) @Max(5) int attempts,
            @Min(2) @Max(24) int raters,
            @Min(1) @Max(24) int ratersAnAnswer,
            @DecimalMin("0.1") @DecimalMax("600") double minutes,
            @DecimalMin("0.5") @DecimalMax("40") double margin) {

        @AssertTrue(message = "must not be more than there are raters")
        boolean isRatersAnAnswerThere() {
            return ratersAnAnswer <= raters;
        }

        @AssertTrue(message = "must not be more than 120 together")
        boolean isFewEnough() {
            return promptsByKind == null
                    || promptsByKind.stream().mapToInt(Integer::intValue).sum() <= MOST_PROMPTS;
        }

        PlannedStudy study() {
            return new PlannedStudy(promptsByKind, candidates, attempts, raters, ratersAnAnswer);
        }
    }

    /**
     * What such a study could show.
     *
     * @param halfWidth          of the 95 % interval for a difference, in points
     * @param correctedHalfWidth the same after correction for the number of pairs
     * @param chanceFound        that the best is seen to be clear of another one
     * @param chanceClear        that it is seen to be clear of every other one
     * @param gradings           answers graded, each as often as it has raters
     * @param hours              of grading in all
     * @param hoursARater        of grading for each rater
     */
    record ForecastView(
            Figure halfWidth,
            Figure correctedHalfWidth,
            Figure chanceFound,
            Figure chanceClear,
            int gradings,
            double hours,
            double hoursARater) {}

    /** What one step more of something would bring. */
    record Alternative(String what, ForecastView forecast) {}

    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public ForecastView forecast(StudyId study, PlannedSize size) {
        return view(size.study(), size, studies.get(study).seed());
    }

    /** Asked for by itself, so that what was planned need not wait for it while a dial is turned. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public List<Alternative> alternatives(StudyId study, PlannedSize size) {
        long seed = studies.get(study).seed();
        List<Alternative> alternatives = new ArrayList<>();
        List<Integer> more = size.promptsByKind().stream().map(n -> n + 1).toList();
        if (more.stream().mapToInt(Integer::intValue).sum() <= MOST_PROMPTS) {
            alternatives.add(new Alternative("one more prompt of each kind", view(with(size, more, 0, 0), size, seed)));
        }
        if (size.ratersAnAnswer() < size.raters()) {
            alternatives.add(new Alternative(
                    "one more rater an answer", view(with(size, size.promptsByKind(), 0, 1), size, seed)));
        }
        alternatives.add(
                new Alternative("one more attempt of each", view(with(size, size.promptsByKind(), 1, 0), size, seed)));
        return alternatives;
    }

    private static PlannedStudy with(PlannedSize size, List<Integer> prompts, int moreAttempts, int moreRaters) {
        return new PlannedStudy(
                prompts,
                size.candidates(),
                size.attempts() + moreAttempts,
                size.raters(),
                size.ratersAnAnswer() + moreRaters);
    }

    private static ForecastView view(PlannedStudy study, PlannedSize size, long seed) {
        Forecast forecast =
                Forecast.of(study, Spread.USUAL, size.margin(), Forecast.Effort.QUICK, Resamples.generator(seed));
        double hours = study.gradings() * size.minutes() / MINUTES_AN_HOUR;
        return new ForecastView(
                Figure.of(forecast.halfWidth()),
                Figure.of(forecast.correctedHalfWidth()),
                Figure.of(forecast.chanceFound()),
                Figure.of(forecast.chanceClear()),
                study.gradings(),
                hours,
                hours / study.raters());
    }
}
