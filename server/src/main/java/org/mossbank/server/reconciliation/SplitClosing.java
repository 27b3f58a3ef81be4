package org.mossbank.server.reconciliation;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * How a talk ended.
 *
 * @param level  the settled grade in levels, a median perhaps between two; absent where it was left open
 * @param by     who ended it, by name
 * @param reason empty where none is asked
 * @param namesKnown whether they could see then which candidate wrote the answer
 */
public record SplitClosing(How how, @Nullable Double level, String by, Instant at, String reason, boolean namesKnown) {
    /** How far a split has got that was taken up. */
    public enum State {
        OPEN,
        /** It has a settled grade. */
        SETTLED,
        /** The lead ended the talk without one. */
        LEFT_OPEN
    }

    /** By whom a split is closed. */
    public enum How {
        /** All raters concerned stand at one level. */
        CONSENT,
        LEAD,
        /** The median of all, with one who saw no grades. */
        THIRD_LOOK
    }

    public State state() {
        return level == null ? State.LEFT_OPEN : State.SETTLED;
    }
}
