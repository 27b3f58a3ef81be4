package org.mossbank.core.trial;

import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The file that a block of code says it is, in a comment that is its first line. */
final class NamedFile {
    private static final int LONGEST_LINE = 300;
    private static final Pattern COMMENT =
            Pattern.compile("(?://|#|--|/\\*|<!--)\\s*+([\\w./-]{1,200}+)\\s*+(?:\\*/|-->)?\\s*+");

    private NamedFile() {}

    /** @param endings that count, each with its dot */
    static Optional<String> of(String code, Set<String> endings) {
        String first = code.lines().findFirst().orElse("");
        if (first.length() > LONGEST_LINE) {
            return Optional.empty();
        }
        Matcher comment = COMMENT.matcher(first.strip());
        return comment.matches() && endings.stream().anyMatch(comment.group(1)::endsWith)
                ? Optional.of(comment.group(1))
                : Optional.empty();
    }
}
