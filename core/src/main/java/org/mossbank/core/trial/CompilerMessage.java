package org.mossbank.core.trial;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What a compiler says of a line.
 *
 * @param path       of the file, as the compiler calls it
 * @param line       from 1
 * @param deprecated whether it is about something that is not to be used any more
 */
public record CompilerMessage(String path, int line, Sort sort, String text, boolean deprecated) {
    private static final int MOST = 500;
    private static final int LONGEST_LINE = 2_000;

    /** {@code path:line: warning: text}, with or without a column, or {@code path(line,column): error TS1: text}. */
    private static final Pattern SAID = Pattern.compile(
            "(?:\\./)?([^\\s:(]{1,300}+)(?::(\\d{1,7}+)(?::\\d{1,7}+)?+|\\((\\d{1,7}+),\\d{1,7}+\\)):\\s(?:(fatal error|error|warning|note)"
                    + "(?:\\sTS(\\d{1,6}+))?+:\\s?+)?+(.*+)");

    /** What the checker of types says of interfaces that are not to be used any more. */
    private static final List<String> DEPRECATED_CODES = List.of("6385", "6387");

    /** How much it matters. */
    public enum Sort {
        ERROR,
        WARNING
    }

    /** All that a compiler wrote down line by line, in its order; what is no message of a line is left out. */
    public static List<CompilerMessage> in(String log) {
        List<CompilerMessage> messages = new ArrayList<>();
        log.lines().filter(l -> l.length() <= LONGEST_LINE).forEach(line -> {
            Matcher said = SAID.matcher(line);
            if (messages.size() < MOST && said.matches() && !"note".equals(said.group(4))) {
                messages.add(of(said));
            }
        });
        return messages;
    }

    private static CompilerMessage of(Matcher said) {
        String text = said.group(6);
        String number = said.group(2) == null ? said.group(3) : said.group(2);
        String lower = text.toLowerCase(Locale.ROOT);
        boolean deprecated = lower.contains("deprecat")
                || lower.contains("[removal]")
                || said.group(5) != null && DEPRECATED_CODES.contains(said.group(5));
        // The Java compiler names no sort for an error.
        Sort sort = "warning".equals(said.group(4)) ? Sort.WARNING : Sort.ERROR;
        return new CompilerMessage(said.group(1), Integer.parseInt(number), sort, text, deprecated);
    }
}
