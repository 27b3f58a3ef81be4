package org.mossbank.standin;

import java.util.Locale;
import java.util.Optional;

/** What goes wrong on request: named in the address as {@code ?fault=}. */
public enum Fault {
    /** Says nothing, and keeps the connection. */
    HANG,
    /** Sends the beginning of a stream, and the rest when it is let go. */
    HOLD,
    /** Sends some of the answer, then closes. */
    HALF,
    /** Turns away with 429 and Retry-After. */
    BUSY,
    /** Turns away the first time, then answers. */
    BUSY_ONCE,
    /** Answers 500. */
    ERROR,
    /** Answers 401. */
    DENIED,
    /** Sends what is no JSON. */
    MALFORMED,
    /** Declines to answer. */
    REFUSAL,
    /** Hits its limit of output. */
    LIMIT,
    /** Answers with a redirect. */
    REDIRECT,
    /** Sends back the header that holds the secret. */
    TELLTALE,
    /** Says from the second request on that a newer version answers. */
    NEWER,
    /** Streams slowly. */
    SLOW;

    static Optional<Fault> named(String word) {
        return word.isEmpty()
                ? Optional.empty()
                : Optional.of(valueOf(word.toUpperCase(Locale.ROOT).replace('-', '_')));
    }
}
