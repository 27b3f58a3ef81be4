package org.mossbank.server.memo.document;

/** How a memo calls those who graded. */
public enum NamesShown {
    BY_NAME,
    /** By a letter, the same throughout. */
    PSEUDONYM,
    /** Not at all, not even which grades are one person's. */
    NOT_AT_ALL
}
