package org.mossbank.server.files;

import org.jspecify.annotations.Nullable;

/**
 * One thing that is wrong with an archive.
 *
 * @param file     path in the archive
 * @param line     from 1; absent where the whole file is meant
 * @param field    column or JSON pointer; absent where the whole line is meant
 * @param expected what should be there
 * @param found    what is there, shortened; absent where nothing is
 */
public record Fault(
        String file,
        @Nullable Integer line,
        @Nullable String field,
        String expected,
        @Nullable String found) {
    private static final int LONGEST_FOUND = 120;

    public Fault {
        if (found != null && found.length() > LONGEST_FOUND) {
            found = found.substring(0, LONGEST_FOUND) + "…";
        }
    }

    public static Fault ofFile(String file, String expected) {
        return new Fault(file, null, null, expected, null);
    }
}
