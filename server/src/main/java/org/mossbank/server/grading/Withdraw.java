package org.mossbank.server.grading;

import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;

/** Takes a sheet out of what counts, and says why. */
public record Withdraw(@NotBlank @Size(max = 1000) String reason) {}
