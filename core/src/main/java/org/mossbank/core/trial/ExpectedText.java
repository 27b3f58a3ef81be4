package org.mossbank.core.trial;

import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.BiPredicate;
import org.mossbank.core.estimate.Require;

/**
 * What a program must write, and how alike it must be.
 *
 * @param text      the text itself, or a regular expression that matches all of it
 * @param tolerance by how much a number may be off, as a part of it and as such; for numbers only
 */
public record ExpectedText(Match match, String text, double tolerance) {
    /** How alike what comes must be. */
    public enum Match {
        /** To the character, but for a line end at the very end. */
        EXACT,
        /** Words in their order, whatever stands between them. */
        WORDS,
        /** As a regular expression for all of it. */
        PATTERN,
        /** Words in their order, numbers within the tolerance. */
        NUMBERS
    }

    /** @throws IllegalArgumentException if the tolerance is negative or no number, or the pattern is none */
    public ExpectedText {
        Require.finite("tolerance", tolerance);
        Require.that(tolerance >= 0, "tolerance", "is not negative", tolerance);
        if (match == Match.PATTERN) {
            compiled(text);
        }
    }

    public static ExpectedText exactly(String text) {
        return new ExpectedText(Match.EXACT, text, 0);
    }

    private static Pattern compiled(String text) {
        try {
            return Pattern.compile(text, Pattern.DOTALL);
        } catch (PatternSyntaxException e) {
            throw new IllegalArgumentException("text is a regular expression: " + e.getMessage(), e);
        }
    }

    /** Where what came is not what must come, in words; empty if it is. Cost: linear in what came. */
    public Optional<String> difference(String came) {
        return switch (match) {
            case EXACT -> difference(text, came);
            case WORDS -> words(came, String::equals);
            case NUMBERS -> words(came, this::isNear);
            case PATTERN ->
                compiled(text).matcher(withoutEnd(came)).matches()
                        ? Optional.empty()
                        : Optional.of("it does not match the pattern");
        };
    }

    private static Optional<String> difference(String wanted, String came) {
        List<String> ours = withoutEnd(wanted).lines().toList();
        List<String> theirs = withoutEnd(came).lines().toList();
        for (int i = 0; i < Math.max(ours.size(), theirs.size()); i++) {
            if (i >= theirs.size()) {
                return Optional.of("line %,d is missing".formatted(i + 1));
            }
            if (i >= ours.size()) {
                return Optional.of("line %,d is too many".formatted(i + 1));
            }
            if (!ours.get(i).equals(theirs.get(i))) {
                return Optional.of("line %,d reads otherwise".formatted(i + 1));
            }
        }
        return Optional.empty();
    }

    private Optional<String> words(String came, BiPredicate<String, String> alike) {
        String[] ours = split(text);
        String[] theirs = split(came);
        for (int i = 0; i < Math.min(ours.length, theirs.length); i++) {
            if (!alike.test(ours[i], theirs[i])) {
                return Optional.of("word %,d reads otherwise".formatted(i + 1));
            }
        }
        if (ours.length == theirs.length) {
            return Optional.empty();
        }
        return Optional.of(ours.length > theirs.length ? "it ends too early" : "it goes on for too long");
    }

    private static String[] split(String text) {
        return Arrays.stream(text.strip().split("\\s+"))
                .filter(w -> !w.isEmpty())
                .toArray(String[]::new);
    }

    private boolean isNear(String wanted, String came) {
        if (wanted.equals(came)) {
            return true;
        }
        Optional<Double> ours = number(wanted);
        Optional<Double> theirs = number(came);
        return ours.isPresent()
                && theirs.isPresent()
                && Math.abs(ours.get() - theirs.get()) <= tolerance * Math.max(1, Math.abs(ours.get()));
    }

    private static Optional<Double> number(String word) {
        try {
            double value = Double.parseDouble(word);
            return Double.isFinite(value) ? Optional.of(value) : Optional.empty();
        } catch (NumberFormatException e) {
            return Optional.empty();
        }
    }

    private static String withoutEnd(String text) {
        String plain = text.replace("\r\n", "\n");
        return plain.endsWith("\n") ? plain.substring(0, plain.length() - 1) : plain;
    }
}
