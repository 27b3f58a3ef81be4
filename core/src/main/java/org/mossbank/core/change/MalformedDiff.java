package org.mossbank.core.change;

/** A text that is no unified diff, with where and why. */
public final class MalformedDiff extends Exception {
    private static final long serialVersionUID = 1L;

    private final int line;
    private final String expected;

    MalformedDiff(int line, String expected) {
        super("line " + line + ": expected " + expected);
        this.line = line;
        this.expected = expected;
    }

    /** From 1. */
    public int line() {
        return line;
    }

    /** In words. */
    public String expected() {
        return expected;
    }
}
