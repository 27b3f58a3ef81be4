package org.mossbank.server.memo.document;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * A version of the memo, without what it says.
 *
 * @param number from 1
 * @param begunBy the name of who began it
 * @param change what it says otherwise than the one before, and why; empty in the first
 * @param signed absent while it is being written
 */
public record MemoHead(
        int number,
        Instant begunAt,
        String begunBy,
        String change,
        @Nullable MemoSignature signed) {
    public static final int LONGEST_CHANGE = 2_000;

    /** When and by whom (a name) it was signed. */
    public record MemoSignature(Instant at, String by) {}
}
