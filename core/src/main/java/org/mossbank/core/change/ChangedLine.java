package org.mossbank.core.change;

/**
 * A line of a difference.
 *
 * @param text without its line end
 */
public record ChangedLine(Kind kind, String text) {
    /** On which side a line stands. */
    public enum Kind {
        /** On both. */
        KEPT,
        ADDED,
        REMOVED
    }
}
