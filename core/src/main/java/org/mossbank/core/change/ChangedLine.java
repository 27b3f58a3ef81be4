package org.mossbank.core.change;

/**
 * A line of a difference.
 *
 * @param text   without its line end
 * @param nature whether an added or removed line has a twin on the other side
 */
public record ChangedLine(Kind kind, String text, Nature nature) {
    /** A line without a twin. */
    public ChangedLine(Kind kind, String text) {
        this(kind, text, Nature.PLAIN);
    }

    /** On which side a line stands. */
    public enum Kind {
        /** On both. */
        KEPT,
        ADDED,
        REMOVED
    }

    /** What an added or removed line is, looked at together with the other side. */
    public enum Nature {
        /** Without a twin. */
        PLAIN,
        /** Its twin stands at the same place and differs in white space alone. */
        SPACING,
        /** Its twin stands somewhere else. */
        MOVED
    }

    ChangedLine with(Nature other) {
        return new ChangedLine(kind, text, other);
    }
}
