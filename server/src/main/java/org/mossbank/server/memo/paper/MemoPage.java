package org.mossbank.server.memo.paper;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;
import org.mossbank.server.memo.document.MemoDocument.MemoPart;
import org.mossbank.server.memo.document.MemoDocument.MemoPoint;
import org.mossbank.server.memo.document.MemoDocument.MemoTable;
import org.mossbank.server.memo.document.MemoSection;
import org.mossbank.server.memo.document.WholeMemo;
import org.mossbank.server.shared.Sha256;
import org.mossbank.server.shared.wording.Numerals;

/** A memo as one page of HTML that needs nothing else, for the screen and for paper. */
public final class MemoPage {
    private static final String STYLE = "\n" + read("memo.css");

    /** By which a browser knows the page's own style, and allows no other: of what stands between its tags. */
    public static final String STYLE_SOURCE = "'sha256-" + Base64.getEncoder().encodeToString(Sha256.of(STYLE)) + "'";

    private final WholeMemo memo;
    private final Html out = new Html();

    private MemoPage(WholeMemo memo) {
        this.memo = memo;
    }

    private static String read(String name) {
        try (InputStream in = MemoPage.class.getResourceAsStream(name)) {
            if (in == null) {
                throw new IllegalStateException("the style of memos comes with the code");
            }
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public static String of(WholeMemo memo) {
        return new MemoPage(memo).page();
    }

    private String page() {
        out.raw("<!doctype html>\n<html lang=\"en\">\n<head>\n<meta charset=\"utf-8\">\n")
                .raw("<meta name=\"viewport\" content=\"width=device-width, initial-scale=1\">\n")
                .raw("<meta name=\"robots\" content=\"noindex, nofollow\">\n");
        out.element(
                "title",
                memo.document().title() + ": memo, version " + memo.head().number());
        out.raw("<style>" + STYLE + "</style>\n</head>\n<body>\n<main>\n");
        head();
        memo.document().parts().forEach(this::part);
        out.raw("</main>\n</body>\n</html>\n");
        return out.toString();
    }

    private void head() {
        out.raw("<header>\n");
        out.element("h1", memo.document().title());
        MemoTellings.state(memo).forEach(s -> out.element("p", s));
        out.raw("</header>\n");
    }

    private void part(MemoPart part) {
        out.raw("<section class=\"" + part.section().name().toLowerCase(java.util.Locale.ROOT) + "\">\n");
        out.element("h2", part.title());
        part.sentences().forEach(s -> out.element("p", s));
        points(part.points());
        markdown(part.quoted(), "quoted");
        markdown(part.words(), "words");
        part.plots().forEach(p -> MemoPlotDrawing.draw(p, out));
        memo.tables(part).forEach(this::table);
        if (part.section() == MemoSection.SUMMARY) {
            entries();
        }
        out.raw("</section>\n");
    }

    private void points(List<MemoPoint> points) {
        if (points.isEmpty()) {
            return;
        }
        out.raw("<dl>\n");
        for (MemoPoint point : points) {
            out.raw("<div>")
                    .raw("<dt>")
                    .text(point.label())
                    .raw("</dt> <dd>")
                    .text(point.text())
                    .raw("</dd></div>\n");
        }
        out.raw("</dl>\n");
    }

    private void markdown(String words, String look) {
        if (!words.isBlank()) {
            out.raw("<div class=\"" + look + "\">\n" + LeadWords.html(words) + "</div>\n");
        }
    }

    private void table(MemoTable table) {
        // What is wide scrolls within itself, by keyboard too.
        out.raw("<div class=\"wide\" role=\"region\" tabindex=\"0\" aria-label=\"")
                .text(table.caption())
                .raw("\">\n<table>\n<caption>")
                .text(table.caption())
                .raw("</caption>\n<thead><tr>");
        table.heads()
                .forEach(h -> out.raw(h.figures() ? "<th scope=\"col\" class=\"figures\">" : "<th scope=\"col\">")
                        .text(h.text())
                        .raw("</th>"));
        out.raw("</tr></thead>\n<tbody>\n");
        for (List<String> row : table.rows()) {
            out.raw("<tr>");
            for (int i = 0; i < row.size(); i++) {
                out.raw(
                                i == 0
                                        ? "<th scope=\"row\">"
                                        : table.heads().get(i).figures() ? "<td class=\"figures\">" : "<td>")
                        .text(row.get(i))
                        .raw(i == 0 ? "</th>" : "</td>");
            }
            out.raw("</tr>\n");
        }
        out.raw("</tbody>\n</table>\n</div>\n");
    }

    private void entries() {
        if (memo.entries().isEmpty()) {
            return;
        }
        out.element("h3", "Added since it was signed");
        out.raw("<dl>\n");
        memo.entries()
                .forEach(e -> out.raw("<div><dt>")
                        .text(Numerals.moment(e.at()) + ", " + e.by())
                        .raw("</dt> <dd>")
                        .text(MemoTellings.entry(e))
                        .raw("</dd></div>\n"));
        out.raw("</dl>\n");
    }
}
