package org.mossbank.core.masking;

import java.util.Arrays;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * Matches a name or word however it is written: whatever its case; its parts joined by spaces, hyphens, underscores or
 * nothing; with marks of emphasis or invisible characters between its letters; and as a part of an identifier
 * ({@code QuillwortClient}, {@code quillwort_client}), but not within another word ({@code quillworthy}).
 */
final class TermPattern {
    /** Shorter ones would be found in ordinary words. */
    private static final int SHORTEST = 2;

    /** So are these in identifiers: {@code aBoat} holds no Bo. */
    private static final int SHORTEST_IN_IDENTIFIERS = 4;

    /** Emphasis, soft hyphens and zero-width characters. */
    private static final String UNSEEN = "[*\\u00AD\\u200B-\\u200D\\u2060\\uFEFF]*+";

    private static final String BETWEEN_PARTS = "[\\s\\-_.*\\u00AD\\u200B-\\u200D\\u2060\\uFEFF]*+";

    private static final String BORDER_OF_PARTS = "[^\\p{L}\\p{N}]+|(?<=\\p{L})(?=\\p{N})|(?<=\\p{N})(?=\\p{L})";

    /** No letter or digit before, or a change of case, as within an identifier. */
    private static final String BEFORE = "(?:(?<![\\p{L}\\p{N}])|(?<=[\\p{Ll}\\p{N}])(?=\\p{Lu}))";

    /** No letter after but an s of the plural, or a capital that begins the next word of an identifier. */
    private static final String AFTER = "(?:(?=s(?!\\p{L}))|(?!\\p{L})|(?<=\\p{Ll})(?=\\p{Lu}))";

    private static final String NOTHING_BEFORE = "(?<![\\p{L}\\p{N}])";

    private static final String NOTHING_AFTER = "(?![\\p{L}\\p{N}])";

    private TermPattern() {}

    /** Empty if the term has too few letters or digits to be looked for. */
    static Optional<Pattern> of(String term) {
        if (term.codePoints().filter(Character::isLetterOrDigit).count() < SHORTEST) {
            return Optional.empty();
        }
        String words = Arrays.stream(term.split(BORDER_OF_PARTS))
                .filter(p -> !p.isEmpty())
                .map(TermPattern::letters)
                .collect(Collectors.joining(BETWEEN_PARTS));
        int last = term.codePoints()
                .filter(Character::isLetterOrDigit)
                .reduce((a, b) -> b)
                .orElseThrow();
        boolean alone = term.length() < SHORTEST_IN_IDENTIFIERS;
        return Optional.of(Pattern.compile((alone ? NOTHING_BEFORE : BEFORE) + "(?iu:" + words + ")"
                + (alone || Character.isDigit(last) ? NOTHING_AFTER : AFTER)));
    }

    private static String letters(String part) {
        return part.codePoints()
                .mapToObj(c -> Pattern.quote(new String(Character.toChars(c))))
                .collect(Collectors.joining(UNSEEN));
    }
}
