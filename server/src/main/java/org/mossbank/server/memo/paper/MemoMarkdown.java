package org.mossbank.server.memo.paper;

import java.util.List;
import java.util.stream.Collectors;
import org.mossbank.server.memo.document.MemoDocument;
import org.mossbank.server.memo.document.MemoDocument.MemoPart;
import org.mossbank.server.memo.document.MemoDocument.MemoTable;
import org.mossbank.server.memo.document.MemoSection;
import org.mossbank.server.memo.document.WholeMemo;
import org.mossbank.server.shared.wording.Numerals;

/** A memo as Markdown, with all its figures. What pictures show stands in the tables. */
public final class MemoMarkdown {
    private static final String SPECIAL = "\\`*_{}[]<>()#+!|~&";

    private MemoMarkdown() {}

    public static String of(WholeMemo memo) {
        StringBuilder out = new StringBuilder();
        out.append("# ").append(plain(memo.document().title())).append("\n\n");
        MemoTellings.state(memo).forEach(s -> out.append(plain(s)).append("\n\n"));
        for (MemoPart part : memo.document().parts()) {
            part(part, memo, out);
        }
        return out.toString();
    }

    private static void part(MemoPart part, WholeMemo memo, StringBuilder out) {
        out.append("## ").append(plain(part.title())).append("\n\n");
        part.sentences().forEach(s -> out.append(plain(s)).append("\n\n"));
        part.points()
                .forEach(p -> out.append("**")
                        .append(plain(p.label()))
                        .append(".** ")
                        .append(plain(p.text()))
                        .append("\n\n"));
        own(part.quoted(), out);
        own(part.words(), out);
        memo.tables(part).forEach(t -> table(t, out));
        if (part.section() == MemoSection.SUMMARY) {
            memo.entries()
                    .forEach(e -> out.append("**")
                            .append(plain(Numerals.moment(e.at()) + ", " + e.by()))
                            .append(".** ")
                            .append(plain(MemoTellings.entry(e)))
                            .append("\n\n"));
        }
    }

    private static void own(String markdown, StringBuilder out) {
        if (!markdown.isBlank()) {
            out.append(markdown.strip()).append("\n\n");
        }
    }

    private static void table(MemoTable table, StringBuilder out) {
        out.append("*").append(plain(table.caption())).append("*\n\n");
        row(table.heads().stream().map(MemoDocument.MemoColumn::text).toList(), out);
        out.append(table.heads().stream()
                        .map(h -> h.figures() ? "--:" : "---")
                        .collect(Collectors.joining("|", "|", "|")))
                .append("\n");
        table.rows().forEach(r -> row(r, out));
        out.append("\n");
    }

    private static void row(List<String> cells, StringBuilder out) {
        out.append(cells.stream().map(MemoMarkdown::plain).collect(Collectors.joining(" | ", "| ", " |")))
                .append("\n");
    }

    /** A text as text: nothing in it is markup, and it stays on its line. */
    static String plain(String text) {
        StringBuilder out = new StringBuilder();
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c == '\n' || c == '\r') {
                out.append(' ');
            } else {
                out.append(SPECIAL.indexOf(c) >= 0 ? "\\" : "").append(c);
            }
        }
        return out.toString();
    }
}
