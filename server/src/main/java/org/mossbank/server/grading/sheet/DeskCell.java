package org.mossbank.server.grading.sheet;

/** One thing on a sheet that a rater sets by itself, and that has a history of its own. */
public interface DeskCell {
    /** Counts up with every change; 0 before the first. */
    long revision();

    /** As a rater's browser gets it. */
    Object state();

    /** Whether it has a row of its own. */
    default boolean isRow() {
        return true;
    }
}
