package org.mossbank.server.expected;

import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.CandidateId;

/**
 * A figure that somebody published of a candidate.
 *
 * @param measure        what was measured; figures of one measure are compared
 * @param value          in the measure's own unit
 * @param higherIsBetter whether more is better
 * @param source         where it stands
 * @param asOf           the day on which it stood there
 */
public record ClaimContent(
        @NotNull CandidateId candidateId,
        @NotBlank @Size(max = 200) String measure,
        @DecimalMin("-1000000000") @DecimalMax("1000000000") double value,
        boolean higherIsBetter,
        @NotBlank @Size(max = 1000) String source,
        @Nullable LocalDate asOf) {
    /** The same of another candidate. */
    ClaimContent of(CandidateId other) {
        return new ClaimContent(other, measure, value, higherIsBetter, source, asOf);
    }
}
