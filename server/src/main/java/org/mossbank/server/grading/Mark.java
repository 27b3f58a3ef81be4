package org.mossbank.server.grading;

import org.jspecify.annotations.Nullable;

/**
 * What stands in a cell of the grade table: a level, "not applicable", or nothing.
 *
 * @param level      absent when not applicable or taken back
 * @param confidence how sure the rater is; absent if they did not say
 */
public record Mark(
        @Nullable Integer level,
        boolean notApplicable,
        @Nullable Confidence confidence) {
    public Mark {
        if (level != null && notApplicable) {
            throw new IllegalArgumentException("level must be absent when not applicable: " + level);
        }
    }

    /** A mark whose rater did not say how sure they are. */
    public static Mark of(@Nullable Integer level, boolean notApplicable) {
        return new Mark(level, notApplicable, null);
    }

    /** Whether something stands there. */
    public boolean isMade() {
        return level != null || notApplicable;
    }
}
