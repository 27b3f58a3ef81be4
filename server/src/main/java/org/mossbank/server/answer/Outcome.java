package org.mossbank.server.answer;

/** How an answer ended. */
public enum Outcome {
    COMPLETE,
    INCOMPLETE,
    REFUSED,
    FAILED,
    TIMED_OUT
}
