package org.mossbank.server.grading;

import org.jspecify.annotations.Nullable;

/**
 * What stands in a cell of the grade table: a level, "not applicable", or nothing.
 *
 * @param level absent when not applicable or taken back
 */
public record Mark(@Nullable Integer level, boolean notApplicable) {
    public Mark {
        if (level != null && notApplicable) {
            throw new IllegalArgumentException("level must be absent when not applicable: " + level);
        }
    }

    boolean isMade() {
        return level != null || notApplicable;
    }
}
