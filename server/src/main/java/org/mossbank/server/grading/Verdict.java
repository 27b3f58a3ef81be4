package org.mossbank.server.grading;

/** How far an answer holds a key point; for one that says what an answer must not do, how far it keeps to that. */
public enum Verdict {
    COVERED,
    PARTLY,
    MISSED,
    /** The answer says or does the opposite. */
    CONTRADICTED
}
