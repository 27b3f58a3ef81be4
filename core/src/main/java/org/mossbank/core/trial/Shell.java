package org.mossbank.core.trial;

import java.util.List;
import java.util.stream.Collectors;

/** Words for a shell. */
public final class Shell {
    private Shell() {}

    /** A text as one word, with nothing in it that a shell would read. */
    public static String quoted(String word) {
        return "'" + word.replace("'", "'\\''") + "'";
    }

    /** Words as a command goes on with them. */
    public static String quoted(List<String> words) {
        return words.stream().map(Shell::quoted).collect(Collectors.joining(" ", " ", ""));
    }
}
