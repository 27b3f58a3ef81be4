package org.mossbank.server.candidate;

import java.util.Optional;
import java.util.regex.Pattern;

/** Finds a candidate's name in text that raters read. */
public final class CandidateNames {
    /** Shorter names would be found in ordinary words. */
    private static final int SHORTEST_NAME = 3;

    private CandidateNames() {}

    /** Matches the name as a whole word, whatever its case; empty if the name is too short to look for. */
    public static Optional<Pattern> pattern(String name) {
        if (name.length() < SHORTEST_NAME) {
            return Optional.empty();
        }
        return Optional.of(Pattern.compile(
                "(?<![\\p{L}\\p{N}])" + Pattern.quote(name) + "(?![\\p{L}\\p{N}])",
                Pattern.CASE_INSENSITIVE | Pattern.UNICODE_CASE));
    }
}
