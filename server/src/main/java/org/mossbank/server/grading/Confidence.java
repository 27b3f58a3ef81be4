package org.mossbank.server.grading;

/** How sure a rater is of a grade. */
public enum Confidence {
    SURE,
    FAIRLY,
    UNSURE
}
