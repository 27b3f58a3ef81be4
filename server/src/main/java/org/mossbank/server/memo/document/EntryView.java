package org.mossbank.server.memo.document;

import java.time.Instant;

/**
 * What was added to a memo after it was signed.
 *
 * @param decidedBy who decided; empty unless it is a decision
 * @param by        the name of who added it
 */
public record EntryView(Sort sort, String words, String decidedBy, String by, Instant at) {
    public static final int LONGEST_WORDS = 4_000;
    public static final int LONGEST_NAME = 200;

    /** What sort of thing is added. */
    public enum Sort {
        /** A second person puts their name to it. */
        COUNTERSIGNED,
        /** What was decided in the end. */
        DECIDED,
        /** What turned out later. */
        NOTE
    }
}
