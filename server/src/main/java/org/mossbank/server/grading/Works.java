package org.mossbank.server.grading;

/** Whether an answer's code works, as its rater found it. */
public enum Works {
    AS_IS,
    /** After a trivial repair. */
    AFTER_REPAIR,
    NOT,
    NOT_TRIED
}
