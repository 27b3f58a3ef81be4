package org.mossbank.core.masking;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Where a Markdown text is code: fenced blocks, and stretches between backticks in a line. */
final class CodeRegions {
    private static final Pattern FENCE = Pattern.compile("^ {0,3}(`{3,}|~{3,})([^\\n]*)$");
    private static final Pattern INLINE = Pattern.compile("(?<!`)(`+)(?!`)(.+?)(?<!`)\\1(?!`)");

    private final List<Span> regions = new ArrayList<>();

    private CodeRegions() {}

    /** A fence that is never closed runs to the end, as Markdown has it. */
    static CodeRegions of(String text) {
        CodeRegions code = new CodeRegions();
        String open = null;
        int begun = 0;
        int start = 0;
        while (start < text.length()) {
            int newline = text.indexOf('\n', start);
            int end = newline < 0 ? text.length() : newline;
            String line = text.substring(start, end);
            Matcher fence = FENCE.matcher(line);
            if (fence.matches() && open == null) {
                open = fence.group(1);
                begun = start;
            } else if (open != null && fence.matches() && closes(open, fence)) {
                code.regions.add(new Span(begun, end));
                open = null;
            } else if (open == null) {
                code.inline(line, start);
            }
            start = end + 1;
        }
        if (open != null) {
            code.regions.add(new Span(begun, text.length()));
        }
        return code;
    }

    private static boolean closes(String open, Matcher fence) {
        return fence.group(1).charAt(0) == open.charAt(0)
                && fence.group(1).length() >= open.length()
                && fence.group(2).isBlank();
    }

    private void inline(String line, int at) {
        Matcher spans = INLINE.matcher(line);
        while (spans.find()) {
            regions.add(new Span(at + spans.start(), at + spans.end()));
        }
    }

    boolean hold(Span span) {
        return regions.stream().anyMatch(r -> r.from() <= span.from() && span.to() <= r.to());
    }
}
