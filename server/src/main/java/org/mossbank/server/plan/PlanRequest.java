package org.mossbank.server.plan;

import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.Size;
import java.util.OptionalInt;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.assignment.PlanOptions;

/**
 * How a round is to be planned.
 *
 * @param ratersAnAnswer how many raters each answer gets at least; absent for all
 * @param repeatShare    share of a rater's sheets that come a second time
 * @param despite        why the round opens although calibration is short of the floor; absent where it is not
 * @param leadGrades     whether the lead grades too, and is as blind as any rater from then on
 */
record PlanRequest(
        @Nullable @Min(1) @Max(100) Integer ratersAnAnswer,
        @DecimalMin("0") @DecimalMax("0.5") double repeatShare,
        boolean leadGrades,
        @Nullable @Size(max = 2000) String despite) {
    PlanOptions options() {
        return new PlanOptions(
                ratersAnAnswer == null ? OptionalInt.empty() : OptionalInt.of(ratersAnAnswer), repeatShare);
    }
}
