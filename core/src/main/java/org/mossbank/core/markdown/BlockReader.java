package org.mossbank.core.markdown;

import java.util.ArrayList;
import java.util.List;
import org.commonmark.node.AbstractVisitor;
import org.commonmark.node.Block;
import org.commonmark.node.FencedCodeBlock;
import org.commonmark.node.IndentedCodeBlock;
import org.commonmark.node.Node;
import org.commonmark.node.SourceSpan;
import org.commonmark.node.Text;
import org.commonmark.parser.IncludeSourceSpans;
import org.commonmark.parser.InlineParser;
import org.commonmark.parser.Parser;
import org.commonmark.parser.SourceLines;

/** Finds blocks of code in a parsed text, in their order. */
final class BlockReader extends AbstractVisitor {
    /** Lists and quotes within each other; what stands deeper is read as text, so that no text costs more than its length. */
    private static final int DEEPEST = 30;

    private static final Parser PARSER = Parser.builder()
            .maxOpenBlockParsers(DEEPEST)
            .includeSourceSpans(IncludeSourceSpans.BLOCKS)
            .inlineParserFactory(context -> new Untouched())
            .build();

    private final String text;

    /** After the last character that is not blank: looked for once, and not for each block that is left open. */
    private final int said;

    private final List<FencedBlock> blocks = new ArrayList<>();
    private int end;

    private BlockReader(String text) {
        this.text = text;
        this.said = text.stripTrailing().length();
    }

    static List<FencedBlock> read(String text) {
        BlockReader reader = new BlockReader(text);
        PARSER.parse(text).accept(reader);
        return reader.blocks;
    }

    /** What stands within a line is not asked for. */
    private static final class Untouched implements InlineParser {
        @Override
        public void parse(SourceLines lines, Node node) {
            node.appendChild(new Text(""));
        }
    }

    @Override
    public void visit(FencedCodeBlock block) {
        boolean isOpen = block.getClosingFenceLength() == null;
        boolean isLast = isOpen && lastCharacter(block) >= said;
        add(
                block,
                isLast ? text.length() : lastCharacter(block),
                block.getInfo().strip(),
                block.getLiteral());
    }

    @Override
    public void visit(IndentedCodeBlock block) {
        String literal = block.getLiteral();
        if (literal.startsWith("diff --git ") || (literal.startsWith("--- ") && literal.contains("\n+++ "))) {
            add(block, lastCharacter(block), "diff", literal);
        }
    }

    private void add(Block block, int to, String info, String content) {
        int from = block.getSourceSpans().get(0).getInputIndex();
        blocks.add(new FencedBlock(from, to, info, content, lineAbove(from)));
        end = to;
    }

    private static int lastCharacter(Block block) {
        List<SourceSpan> spans = block.getSourceSpans();
        SourceSpan last = spans.get(spans.size() - 1);
        return last.getInputIndex() + last.getLength();
    }

    /** The last line that is not blank, above a place and below the block before. */
    private String lineAbove(int place) {
        int to = text.lastIndexOf('\n', place - 1);
        while (to > end) {
            int from = Math.max(text.lastIndexOf('\n', to - 1) + 1, end);
            String line = text.substring(from, to);
            if (!line.chars().allMatch(c -> c == '>' || Character.isWhitespace(c))) {
                return line;
            }
            to = from - 1;
        }
        return "";
    }
}
