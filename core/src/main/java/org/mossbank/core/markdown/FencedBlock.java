package org.mossbank.core.markdown;

import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A block of code in a Markdown text, wherever it stands: at the left edge, in a list or a quote.
 *
 * @param from    first character of the opening fence, from 0
 * @param to      after the last character of the closing fence, or the end of the text if it is never closed
 * @param info    what stands after the opening fence, such as a language
 * @param content the lines between, each with its line end, without what a list or a quote puts before them
 * @param before  the last line above that is not blank; may be empty
 */
public record FencedBlock(int from, int to, String info, String content, String before) {
    /** Whether a text shows any code. */
    public static boolean isCodeIn(String text) {
        return in(text).stream().anyMatch(b -> !b.content().isBlank());
    }

    /**
     * The blocks of a text in their order; a fence that is never closed runs to the end of what it stands in, as CommonMark
     * has it. A difference that is only indented, by four spaces, counts as a block of that language.
     *
     * <p>Cost: linear in the text.
     *
     * @see <a href="https://spec.commonmark.org/0.31.2/">CommonMark 0.31.2, sections 4.4 and 4.5</a>
     */
    public static List<FencedBlock> in(CharSequence text) {
        return BlockReader.read(text.toString());
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
