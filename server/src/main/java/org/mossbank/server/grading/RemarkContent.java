package org.mossbank.server.grading;

import jakarta.validation.Valid;
import jakarta.validation.constraints.AssertTrue;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * A rater's note on an answer.
 *
 * @param trait as the rubric calls it; empty for none
 * @param words in the rater's words; may be empty if there is a trait
 * @param lines where they matter; absent for a remark on the whole answer
 */
public record RemarkContent(
        @NotNull Stance stance,
        @NotNull @Size(max = 80) String trait,
        @NotNull @Size(max = 4000) String words,
        @Nullable @Valid Lines lines) {
    /** Which way a remark points. */
    public enum Stance {
        CREDIT,
        FAULT
    }

    /** In what lines are counted. */
    public enum Part {
        /** The answer's text. */
        TEXT,
        /** The starting code of a difference. */
        BEFORE,
        /** The changed code of a difference. */
        AFTER,
        /** A file whole. */
        FILE
    }

    /**
     * @param path  the file; absent in the answer's text
     * @param from  first line, from 1
     * @param to    last line
     * @param quote the lines as the rater read them, shortened
     */
    public record Lines(
            @NotNull Part part,
            @Nullable @Size(max = 300) String path,
            @Min(1) int from,
            @Min(1) int to,
            @NotNull @Size(max = 2000) String quote) {
        @AssertTrue(message = "lines must be in order, and with a path outside the text")
        boolean isSound() {
            return from >= 1 && from <= to && (part == Part.TEXT) == (path == null);
        }
    }

    @AssertTrue(message = "a remark must have a trait or words")
    boolean isSaid() {
        return isWritten(trait) || isWritten(words);
    }

    /** Asked before it is known that there is anything. */
    private static boolean isWritten(@Nullable String text) {
        return text != null && !text.isBlank();
    }

    /** How many lines a text has, at the most that any way of counting finds. */
    public static int linesOf(String text) {
        return 1 + (int) text.chars().filter(c -> c == '\n').count();
    }

    /** What must hold for it, in words; empty if it does. */
    public Optional<String> fault() {
        if (!isSaid()) {
            return Optional.of("a trait or words");
        }
        return lines == null || lines.isSound()
                ? Optional.empty()
                : Optional.of("lines in order from 1, with a path unless they are of the text");
    }
}
