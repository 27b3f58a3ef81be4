package org.mossbank.server.grading;

import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.UUID;

/**
 * Sets the reason for an answer's grades; empty text takes it away.
 *
 * @param changeId     made by the client for this change; sending it again changes nothing
 * @param baseRevision the revision that the rater saw
 */
record SetReason(
        @NotNull UUID changeId,
        @Min(0) long baseRevision,

        @NotNull @Size(max = 4000, message = "must not be longer than 4,000 characters")
        String text) {}
