package org.mossbank.server.grading;

import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * Sets a cell of the grade table, or clears it with neither level nor "not applicable".
 *
 * @param changeId     made by the client for this change; sending it again changes nothing
 * @param baseRevision the revision that the rater saw; 0 for an empty cell
 */
record SetGrade(
        @NotNull UUID changeId,
        @Min(0) long baseRevision,
        @Nullable Integer level,
        boolean notApplicable) {}
