package org.mossbank.server.source;

import java.time.Duration;
import org.jspecify.annotations.Nullable;

/**
 * What came of one request.
 *
 * @param text          what came, perhaps only in part
 * @param firstOutputMs milliseconds from sending to the first of the text; absent if nothing came
 * @param totalMs       milliseconds in all
 * @param inputTokens   as the service counted them
 * @param outputTokens  as the service counted them
 * @param model         what the service said had answered; absent where it said nothing
 * @param reason        why it is not complete, in words; empty if it is
 * @param free          whether nothing can have been paid for, because it was turned away before anything came
 * @param retry         whether to try again makes sense; only where it was free
 * @param retryAfter    how long the service asks to wait
 */
public record Reply(
        Ending ending,
        String text,
        @Nullable Long firstOutputMs,
        long totalMs,
        @Nullable Long inputTokens,
        @Nullable Long outputTokens,
        @Nullable String model,
        String reason,
        boolean free,
        boolean retry,
        @Nullable Duration retryAfter) {
    /** How a request ended. */
    public enum Ending {
        COMPLETE,
        /** It stopped half way, was cut off, or hit its limit of tokens. */
        INCOMPLETE,
        REFUSED,
        FAILED,
        TIMED_OUT
    }

    /** Something that is told while it comes. */
    public interface Progress {
        /** @param textSoFar all of the text that came */
        void came(String textSoFar, long firstOutputMs);
    }

    /** Turned away before anything came. */
    static Reply turnedAway(long totalMs, String reason, boolean retry, @Nullable Duration retryAfter) {
        return new Reply(Ending.FAILED, "", null, totalMs, null, null, null, reason, true, retry, retryAfter);
    }

    /** Ended without being complete, after it may have cost something. */
    static Reply broken(Ending ending, ReplyReader.Came came, long totalMs, String reason) {
        return new Reply(
                ending,
                came.text(),
                came.firstOutputMs(),
                totalMs,
                came.inputTokens(),
                came.outputTokens(),
                came.model(),
                reason,
                false,
                false,
                null);
    }
}
