package org.mossbank.server.prompt;

/** How much of the code a task is about. */
public enum TaskSize {
    /** One place. */
    SMALL,
    /** One file, or a few places. */
    MEDIUM,
    /** Several files. */
    LARGE
}
