package org.mossbank.core.masking;

import java.util.Comparator;
import java.util.List;

/**
 * A stretch of a text that raters do not read, and what they read in its place.
 *
 * @param replacement may be empty
 */
public record Mask(Span span, String replacement) {

    /**
     * The text as raters read it; whatever no mask covers stays as it is.
     *
     * @param masks in any order
     * @throws IllegalArgumentException if a mask reaches beyond the text, or two overlap
     */
    public static String applied(String text, List<Mask> masks) {
        StringBuilder masked = new StringBuilder();
        int at = 0;
        for (Mask mask : masks.stream()
                .sorted(Comparator.comparingInt(m -> m.span().from()))
                .toList()) {
            if (mask.span().from() < at) {
                throw new IllegalArgumentException(
                        "masks must not overlap: at " + mask.span().from());
            }
            if (mask.span().to() > text.length()) {
                throw new IllegalArgumentException(
                        "masks must lie within " + text.length() + " characters: " + mask.span());
            }
            masked.append(text, at, mask.span().from()).append(mask.replacement());
            at = mask.span().to();
        }
        return masked.append(text, at, text.length()).toString();
    }
}
