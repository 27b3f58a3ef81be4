package org.mossbank.server.reconciliation;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CriterionId;

/** What is asked of splits. */
final class SplitRequests {
    /** The most splits that are taken up in one request. */
    static final int MOST_AT_ONCE = 200;

    private static final int HIGHEST_LEVEL = 9;

    private SplitRequests() {}

    /** An answer and criterion. */
    record SplitAt(@NotNull AnswerId answerId, @NotNull CriterionId criterionId) {}

    /** The splits to talk about. */
    record TakeUp(
            @NotNull @Size(min = 1, max = MOST_AT_ONCE) List<@Valid @NotNull SplitAt> splits) {}

    /** The widest that are not taken up yet. */
    record TakeUpWidest(@Min(1) @Max(MOST_AT_ONCE) int count) {}

    /** @param id made by the client, so that what is sent twice is said once */
    record Say(@NotNull UUID id, @NotBlank @Size(max = 4000) String words) {}

    /** @param id made by the client, so that what is sent twice is taken once */
    record Stand(
            @NotNull UUID id,
            @Min(0) @Max(HIGHEST_LEVEL) int level,
            @NotBlank @Size(max = 2000) String reason) {}

    record Settle(
            @Min(0) @Max(HIGHEST_LEVEL) int level,
            @NotBlank @Size(max = 2000) String reason) {}

    record LeaveOpen(@NotBlank @Size(max = 2000) String reason) {}

    record OpenSplitAgain(@NotBlank @Size(max = 2000) String reason) {}

    record AskLook(@NotNull AccountId raterId) {}

    record GiveLook(
            @Min(0) @Max(HIGHEST_LEVEL) int level,
            @NotBlank @Size(max = 2000) String reason) {}
}
