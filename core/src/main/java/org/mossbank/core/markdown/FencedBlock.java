package org.mossbank.core.markdown;

import java.util.ArrayList;
import java.util.List;
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
    private static final Pattern FENCE = Pattern.compile("^ {0,3}(`{3,}|~{3,})([^\\n]*)$");

    /** The blocks of a text in their order; a fence that is never closed runs to the end, as Markdown has it. */
    public static List<FencedBlock> in(String text) {
        List<FencedBlock> blocks = new ArrayList<>();
        Matcher open = null;
        int begun = 0;
        int inside = 0;
        String before = "";
        int start = 0;
        while (start < text.length()) {
            int newline = text.indexOf('\n', start);
            int end = newline < 0 ? text.length() : newline;
            String line = text.substring(start, end);
            Matcher fence = FENCE.matcher(line.endsWith("\r") ? line.substring(0, line.length() - 1) : line);
            boolean matches = fence.matches();
            if (matches && open == null) {
                open = fence;
                begun = start;
                inside = Math.min(end + 1, text.length());
            } else if (matches && closes(open, fence)) {
                blocks.add(new FencedBlock(begun, end, open.group(2).strip(), text.substring(inside, start), before));
                open = null;
                before = "";
            } else if (open == null && !line.isBlank()) {
                before = line;
            }
            start = end + 1;
        }
        if (open != null) {
            blocks.add(new FencedBlock(begun, text.length(), open.group(2).strip(), text.substring(inside), before));
        }
        return blocks;
    }

    private static boolean closes(Matcher open, Matcher fence) {
        return fence.group(1).charAt(0) == open.group(1).charAt(0)
                && fence.group(1).length() >= open.group(1).length()
                && fence.group(2).isBlank();
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

    public List<String> lines() {
        return content.lines().toList();
    }
}
