package org.mossbank.server.memo.paper;

import java.util.List;
import org.commonmark.ext.gfm.tables.TablesExtension;
import org.commonmark.node.AbstractVisitor;
import org.commonmark.node.Heading;
import org.commonmark.node.Image;
import org.commonmark.node.Node;
import org.commonmark.node.Text;
import org.commonmark.parser.Parser;
import org.commonmark.renderer.html.HtmlRenderer;

/** Markdown as HTML that loads nothing and runs nothing: markup in it is text, pictures are their words. */
final class LeadWords {
    /** Lists and quotes within each other; what stands deeper is read as text, so that no text costs more than its length. */
    private static final int DEEPEST = 30;

    /** A memo's parts have headings of the second order. */
    private static final int BELOW_PARTS = 2;

    private static final int LOWEST = 6;

    private static final Parser PARSER = Parser.builder()
            .maxOpenBlockParsers(DEEPEST)
            .extensions(List.of(TablesExtension.create()))
            .build();
    private static final HtmlRenderer RENDERER = HtmlRenderer.builder()
            .escapeHtml(true)
            .sanitizeUrls(true)
            .extensions(List.of(TablesExtension.create()))
            .build();

    private LeadWords() {}

    static String html(String markdown) {
        Node document = PARSER.parse(markdown);
        document.accept(new Tamed());
        return RENDERER.render(document);
    }

    private static final class Tamed extends AbstractVisitor {
        @Override
        public void visit(Heading heading) {
            heading.setLevel(Math.min(LOWEST, heading.getLevel() + BELOW_PARTS));
            visitChildren(heading);
        }

        @Override
        public void visit(Image image) {
            Node child = image.getFirstChild();
            while (child != null) {
                Node next = child.getNext();
                image.insertBefore(child);
                child = next;
            }
            image.insertBefore(new Text(" (" + image.getDestination() + ")"));
            image.unlink();
        }
    }
}
