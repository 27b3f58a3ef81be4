package org.mossbank.server.prompt;

/** How a request is worded. */
public enum Wording {
    VAGUE,
    EXACT,
    OTHER
}
