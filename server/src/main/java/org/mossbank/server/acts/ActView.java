package org.mossbank.server.acts;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * One act on record.
 *
 * @param subject    what it was done to, in words; may be empty
 * @param reason     why; may be empty where none is asked
 * @param by         the person's name
 * @param namesKnown whether they could see then which candidate wrote what
 * @param before     what the rule yielded just before; absent where nothing could be yielded yet
 * @param after      and just after; absent also while it is being worked out
 */
public record ActView(
        ActSort sort,
        String subject,
        String reason,
        String by,
        Instant at,
        boolean namesKnown,
        OutcomeTeller.@Nullable Told before,
        OutcomeTeller.@Nullable Told after) {
    /** As it is shown while nobody may know how candidates stand. */
    ActView withoutOutcomes() {
        return new ActView(sort, subject, reason, by, at, namesKnown, null, null);
    }

    public boolean changedTheOutcome() {
        return before != null && after != null && !before.equals(after);
    }
}
