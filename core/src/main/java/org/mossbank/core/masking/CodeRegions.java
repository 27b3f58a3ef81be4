package org.mossbank.core.masking;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.mossbank.core.markdown.FencedBlock;

/** Where a Markdown text is code: fenced blocks, and stretches between backticks in a line. */
final class CodeRegions {
    private static final Pattern INLINE = Pattern.compile("(?<!`)(`+)(?!`)(.+?)(?<!`)\\1(?!`)");

    private final List<Span> regions = new ArrayList<>();

    private CodeRegions() {}

    static CodeRegions of(String text) {
        CodeRegions code = new CodeRegions();
        int at = 0;
        for (FencedBlock block : FencedBlock.in(text)) {
            code.inline(text.substring(at, block.from()), at);
            code.regions.add(new Span(block.from(), block.to()));
            at = block.to();
        }
        code.inline(text.substring(at), at);
        return code;
    }

    /** A stretch between backticks ends on its line: the pattern's dot matches no line end. */
    private void inline(String prose, int at) {
        Matcher spans = INLINE.matcher(prose);
        while (spans.find()) {
            regions.add(new Span(at + spans.start(), at + spans.end()));
        }
    }

    boolean hold(Span span) {
        return regions.stream().anyMatch(r -> r.from() <= span.from() && span.to() <= r.to());
    }
}
