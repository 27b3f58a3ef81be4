package org.mossbank.server.study;

import com.fasterxml.jackson.annotation.JsonInclude;
import jakarta.validation.Valid;
import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.decision.Outcome;
import org.mossbank.core.planning.Forecast;
import org.mossbank.core.planning.GradingModel;

/**
 * What a study was thought to show when its brief was closed, by simulation of its own rule.
 *
 * @param ratersAnAnswer how many raters grade each answer
 * @param leads          chances at 0, 1, 2 and 3 margins
 * @param smallestLead   points that are recommended in 80 % of studies; absent if even 40 are not
 * @param studies        simulated at each lead
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record KeptForecast(
        @Min(1) @Max(100_000) int prompts,
        @Min(2) @Max(1_000) int candidates,
        @Min(1) @Max(100) int attempts,
        @Min(1) @Max(10_000) int raters,
        @Min(1) @Max(10_000) int ratersAnAnswer,
        @NotNull GradedBy gradedBy,
        @DecimalMin("0") @DecimalMax("100") double margin,
        @NotNull @Size(min = 1, max = 10) List<@NotNull @Valid LeadView> leads,
        @Nullable @DecimalMin("0") @DecimalMax("100") Double smallestLead,
        @Min(1) @Max(1_000_000) int studies) {

    /** How raters are thought to grade. */
    public enum GradedBy {
        GOOD(GradingModel.GOOD),
        MIDDLING(GradingModel.MIDDLING),
        GUESSING(GradingModel.GUESSING);

        private final GradingModel model;

        GradedBy(GradingModel model) {
            this.model = model;
        }

        GradingModel model() {
            return model;
        }
    }

    /**
     * Chances of the outcomes at one true lead; together 1.
     *
     * @param points      the lead in points of 100
     * @param recommended that a candidate is recommended
     * @param wrong       that one is who is not ahead; part of recommended
     */
    public record LeadView(
            double points,
            double recommended,
            double wrong,
            double safeChoices,
            double byKind,
            double undecided,
            double withheld) {
        static LeadView of(Forecast.AtLead at) {
            return new LeadView(
                    at.points(),
                    at.chance(Outcome.RECOMMENDED),
                    at.wrong(),
                    at.chance(Outcome.SAFE_CHOICES),
                    at.chance(Outcome.BY_KIND),
                    at.chance(Outcome.UNDECIDED),
                    at.chance(Outcome.WITHHELD));
        }
    }
}
