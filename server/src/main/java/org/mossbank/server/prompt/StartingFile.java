package org.mossbank.server.prompt;

import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;

/**
 * One file of the code that a prompt is about.
 *
 * @param path relative, with forward slashes, never upwards
 */
public record StartingFile(
        @NotNull
        @Size(max = 300)
        @Pattern(regexp = StartingFile.PATH, message = "must be a relative path such as src/Buoy.java")
        String path,

        @NotNull @Size(max = StartingFile.LONGEST) String text) {
    static final int LONGEST = 1 << 20;
    /** No empty, hidden-upwards or absolute steps, no backslash, no control character. */
    public static final String PATH =
            "(?s)(?!.{301})(?!.*(?:^|/)\\.{1,2}(?:/|$))[^/\\\\\\p{Cntrl}]+(?:/[^/\\\\\\p{Cntrl}]+)*";
}
