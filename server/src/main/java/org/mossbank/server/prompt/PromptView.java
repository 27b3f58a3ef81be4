package org.mossbank.server.prompt;

import java.time.Instant;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.PromptId;

/**
 * What every candidate is asked.
 *
 * @param authorId  who wrote it; they do not grade answers to it
 * @param variantOf the prompt that this is another wording of
 * @param wording   how this one is worded
 * @param bank      the version in the team's bank that it was taken from or kept as
 * @param calibration the calibration that it is for, from 1; absent where it counts
 * @param fault     why it counts nowhere, if it turned out faulty
 * @param version   counts up with every change; sent back with the next one
 */
public record PromptView(
        PromptId id,
        String key,
        KindView kind,
        PromptContent content,
        @Nullable AccountId authorId,
        @Nullable PromptId variantOf,
        @Nullable Wording wording,
        @Nullable BankRef bank,
        @Nullable Integer calibration,
        @Nullable FaultView fault,
        long version) {

    /** A version in the bank. */
    public record BankRef(UUID bankPromptId, int number) {}

    /** When, by whom (a name) and why a prompt was found faulty. */
    public record FaultView(Instant at, String by, String reason) {}

    public String title() {
        return content.title();
    }

    /** Text by path. */
    public Map<String, String> startingCode() {
        return content.startingCode();
    }

    public boolean isFaulty() {
        return fault != null;
    }

    /** Whether raters grade it to learn the ruler, and what they give counts nowhere. */
    public boolean isForCalibration() {
        return calibration != null;
    }

    /** Whether figures rest on it. */
    public boolean isCounting() {
        return !isFaulty() && !isForCalibration();
    }

    /** What is drawn as one when prompts are resampled: the prompt and its other wordings. */
    public PromptId family() {
        return variantOf == null ? id : variantOf;
    }
}
