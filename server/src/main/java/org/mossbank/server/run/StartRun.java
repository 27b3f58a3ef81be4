package org.mossbank.server.run;

import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Digits;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.math.BigDecimal;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.answer.FollowUp;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;

/**
 * What to ask.
 *
 * @param attempts     how often each
 * @param onlyMissing  leaves out attempts that are there
 * @param followUps    how many of each prompt's prepared follow-ups are asked at most
 * @param budgetCost   in the candidates' currency; absent for no limit
 * @param budgetTokens sent and received; absent for no limit
 */
record StartRun(
        @NotEmpty @Size(max = 1000) List<@NotNull PromptId> promptIds,
        @NotEmpty @Size(max = 100) List<@NotNull CandidateId> candidateIds,
        @Min(1) @Max(20) int attempts,
        boolean onlyMissing,
        @Min(0) @Max(FollowUp.MOST) int followUps,

        @Nullable @DecimalMin("0") @Digits(integer = 8, fraction = 6)
        BigDecimal budgetCost,

        @Nullable @Min(0) @Max(1_000_000_000_000L) Long budgetTokens) {}
