package org.mossbank.server.calibration;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.rubric.CriterionContent;
import org.mossbank.server.shared.FreeKey;

/** What is asked of calibrations. */
final class CalibrationRequests {
    static final int FEWEST_PROMPTS = 2;
    static final int MOST_PROMPTS = 5;

    private CalibrationRequests() {}

    /** The prompts that everybody grades first; from then on they count nowhere. */
    record Begin(
            @NotNull @Size(min = FEWEST_PROMPTS, max = MOST_PROMPTS)
            List<@NotNull PromptId> promptIds) {}

    /** Whom nobody waits for any longer. */
    record GoOnWithout(
            @NotNull AccountId raterId,
            @NotBlank @Size(max = 1000) String reason) {}

    /**
     * @param id        made by the client, so that what is sent twice is said once
     * @param criterion key; absent for the answer as a whole
     * @param lines     of the answer's text; absent for none in particular
     */
    record SayOfAnswer(
            @NotNull UUID id,

            @Nullable @Pattern(regexp = FreeKey.FORM) String criterion,

            @Nullable @Valid SaidLines lines,
            @NotBlank @Size(max = 4000) String words) {}

    record SaidLines(
            @Min(1) @Max(10_000_000) int from,
            @Min(1) @Max(10_000_000) int to) {}

    /** At which level an answer should stand on a criterion, and why. */
    record Agree(
            @Min(0) @Max(CriterionContent.HIGHEST_LEVEL) int level,
            @NotBlank @Size(max = 2000) String reason) {}
}
