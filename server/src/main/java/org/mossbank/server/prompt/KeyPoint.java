package org.mossbank.server.prompt;

import jakarta.validation.constraints.AssertTrue;
import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import org.jspecify.annotations.Nullable;

/**
 * One thing that a right answer must contain, or must not.
 *
 * @param weight   how much it counts among the others, above 0
 * @param file     the starting file that it is about, if it is about one
 * @param fromLine first line in it, from 1; given with the last or not at all
 * @param toLine   last line in it
 */
public record KeyPoint(
        @NotNull Stance stance,
        @NotBlank @Size(max = 2000) String text,

        @DecimalMin(value = "0", inclusive = false) @DecimalMax("1000000")
        double weight,

        @Nullable @Size(max = 300) String file,
        @Nullable @Min(1) Integer fromLine,
        @Nullable @Min(1) Integer toLine) {
    /** Which way a key point points. */
    public enum Stance {
        MUST_CONTAIN,
        MUST_NOT
    }

    /** A key point about no place in particular, weighing as much as any. */
    public static KeyPoint of(Stance stance, String text) {
        return new KeyPoint(stance, text, 1, null, null, null);
    }

    @AssertTrue(message = "lines must be given both, in order, and with a file")
    boolean isLinesInOrder() {
        if (fromLine == null || toLine == null) {
            return fromLine == null && toLine == null;
        }
        return file != null && fromLine <= toLine;
    }
}
