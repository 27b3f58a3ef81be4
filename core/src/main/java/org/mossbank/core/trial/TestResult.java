package org.mossbank.core.trial;

/**
 * How one test of a report ended.
 *
 * @param name    as the report has it, with what it belongs to before it
 * @param message why it failed; empty otherwise
 */
public record TestResult(String name, End end, String message) {
    /** How a test ended. */
    public enum End {
        PASSED,
        FAILED,
        /** Not run, by its own word: it counts neither way. */
        SKIPPED
    }
}
