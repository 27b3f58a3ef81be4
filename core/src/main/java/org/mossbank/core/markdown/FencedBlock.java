package org.mossbank.core.markdown;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A block of code between two fences in a Markdown text.
 *
 * @param from    first character of the opening fence, from 0
 * @param to      after the last character of the closing fence, or the end of the text if it is never closed
 * @param info    what stands after the opening fence, such as a language
 * @param content the lines between, each with its line end
 * @param before  the last line above that is not blank; may be empty
 */
public record FencedBlock(int from, int to, String info, String content, String before) {
    /**
     * What opens or may close a block.
     *
     * @param sign   a backtick or a tilde
     * @param length how many of it
     * @param rest   what follows
     */
    private record Fence(char sign, int length, String rest) {
        private static final int SHORTEST = 3;
        private static final int MOST_INDENTED = 3;

        /** The fence on a line; absent if there is none. Reads no further than it must to know. */
        static Optional<Fence> on(CharSequence text, int from, int to) {
            int at = from;
            while (at < to && at - from <= MOST_INDENTED && text.charAt(at) == ' ') {
                at++;
            }
            if (at == to || at - from > MOST_INDENTED) {
                return Optional.empty();
            }
            char sign = text.charAt(at);
            int begun = at;
            while ((sign == '`' || sign == '~') && at < to && text.charAt(at) == sign) {
                at++;
            }
            return at - begun < SHORTEST
                    ? Optional.empty()
                    : Optional.of(new Fence(
                            sign,
                            at - begun,
                            text.subSequence(at, to).toString().strip()));
        }

        boolean isClosedBy(Fence other) {
            return other.sign == sign && other.length >= length && other.rest.isEmpty();
        }
    }

    /**
     * The blocks of a text in their order; a fence that is never closed runs to the end, as Markdown has it. Reads each
     * character a bounded number of times.
     */
    public static List<FencedBlock> in(CharSequence text) {
        List<FencedBlock> blocks = new ArrayList<>();
        Fence open = null;
        int begun = 0;
        int inside = 0;
        String before = "";
        int start = 0;
        while (start < text.length()) {
            int end = endOfLine(text, start);
            Fence fence = Fence.on(text, start, end).orElse(null);
            if (fence != null && open == null) {
                open = fence;
                begun = start;
                inside = Math.min(end + 1, text.length());
            } else if (fence != null && open.isClosedBy(fence)) {
                blocks.add(new FencedBlock(begun, end, open.rest, part(text, inside, start), before));
                open = null;
                before = "";
            } else if (open == null) {
                String line = part(text, start, end);
                before = line.isBlank() ? before : line;
            }
            start = end + 1;
        }
        if (open != null) {
            blocks.add(new FencedBlock(begun, text.length(), open.rest, part(text, inside, text.length()), before));
        }
        return blocks;
    }

    private static String part(CharSequence text, int from, int to) {
        return text.subSequence(from, to).toString();
    }

    private static int endOfLine(CharSequence text, int from) {
        int end = from;
        while (end < text.length() && text.charAt(end) != '\n') {
            end++;
        }
        return end;
    }

    /** A text in fences that nothing inside closes. */
    public static String around(String content, String info) {
        int longest = 2;
        Matcher ticks = Pattern.compile("`+").matcher(content);
        while (ticks.find()) {
            longest = Math.max(longest, ticks.group().length());
        }
        String fence = "`".repeat(longest + 1);
        return fence + info + "\n" + content + (content.endsWith("\n") ? "" : "\n") + fence + "\n";
    }

    /** What closes a block that a text leaves open, to write on below it; empty if none is open. */
    public static String endOfOpen(String text) {
        String below = text + "\n\nbelow";
        List<FencedBlock> blocks = in(below);
        if (blocks.isEmpty() || blocks.get(blocks.size() - 1).to() < below.length()) {
            return "";
        }
        Matcher fence = Pattern.compile("`{3,}|~{3,}")
                .matcher(text.substring(blocks.get(blocks.size() - 1).from()));
        return fence.find() ? "\n" + fence.group() + "\n" : "";
    }

    /** The first word of the info: the language. */
    public String language() {
        return info.split("[\\s{]", 2)[0];
    }

    /** The first line; empty if there is none. */
    public String firstLine() {
        return content.lines().findFirst().orElse("");
    }
}
