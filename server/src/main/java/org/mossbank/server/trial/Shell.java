package org.mossbank.server.trial;

/** Words for a shell. */
final class Shell {
    private Shell() {}

    /** A text as one word, with nothing in it that a shell would read. */
    static String quoted(String word) {
        return "'" + word.replace("'", "'\\''") + "'";
    }
}
