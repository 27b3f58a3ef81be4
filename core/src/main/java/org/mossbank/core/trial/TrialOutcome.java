package org.mossbank.core.trial;

/** How a trial, or a part of one, ended; from what keeps most from being tried to what keeps nothing. */
public enum TrialOutcome {
    /** Nothing could be put together: there is no code, or a difference does not fit. */
    DID_NOT_APPLY,
    DID_NOT_COMPILE,
    CRASHED,
    TIMED_OUT,
    OUT_OF_MEMORY,
    WRONG_OUTPUT,
    /** Some tests of many, or none of them. */
    FAILED_TESTS,
    PASSED;

    public boolean passed() {
        return this == PASSED;
    }
}
