package org.mossbank.server.memo.document;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.UnaryOperator;
import org.mossbank.server.memo.document.MemoDocument.MemoColumn;
import org.mossbank.server.memo.document.MemoDocument.MemoPart;
import org.mossbank.server.memo.document.MemoDocument.MemoPlot;
import org.mossbank.server.memo.document.MemoDocument.MemoPoint;
import org.mossbank.server.memo.document.MemoDocument.MemoTable;
import org.mossbank.server.memo.document.MemoDocument.PlotRow;
import org.mossbank.server.shared.Figure;

/** A part of a memo while it is put together. Empty tables and pictures are left out. */
public final class PartInHand {
    private final MemoSection section;
    private final List<String> sentences = new ArrayList<>();
    private final List<MemoPoint> points = new ArrayList<>();
    private final List<MemoPlot> plots = new ArrayList<>();
    private final List<MemoTable> tables = new ArrayList<>();
    private String quoted = "";

    PartInHand(MemoSection section) {
        this.section = section;
    }

    /** A paragraph; nothing is no paragraph. */
    PartInHand say(String sentence) {
        if (!sentence.isBlank()) {
            sentences.add(sentence);
        }
        return this;
    }

    /** The same under a label. */
    PartInHand point(String label, String text) {
        if (!text.isBlank()) {
            points.add(new MemoPoint(label, text));
        }
        return this;
    }

    PartInHand quote(String markdown) {
        quoted = markdown;
        return this;
    }

    /** @param heads of columns; one that ends in {@code #} is of a column of figures */
    PartInHand table(String caption, List<String> heads, List<List<String>> rows) {
        if (!rows.isEmpty()) {
            tables.add(new MemoTable(
                    caption,
                    heads.stream()
                            .map(h -> h.endsWith("#")
                                    ? new MemoColumn(h.substring(0, h.length() - 1), true)
                                    : new MemoColumn(h, false))
                            .toList(),
                    rows));
        }
        return this;
    }

    PartInHand plot(String caption, String unit, double from, double to, List<PlotRow> rows) {
        if (!rows.isEmpty()) {
            plots.add(new MemoPlot(caption, unit, from, to, rows));
        }
        return this;
    }

    /** With a full stop where it has none. */
    public static String sentence(String text) {
        String stripped = text.strip();
        return stripped.isEmpty() || ".!?".indexOf(stripped.charAt(stripped.length() - 1)) >= 0
                ? stripped
                : stripped + ".";
    }

    static List<String> row(String... cells) {
        return Arrays.asList(cells);
    }

    /** A figure as a row of a plot; none for one that cannot be worked out. */
    static List<PlotRow> drawn(String name, Figure figure) {
        Double value = figure.value();
        return value == null ? List.of() : List.of(new PlotRow(name, value, figure.low(), figure.high()));
    }

    /** @param names what becomes of the names in what is told; tables and labels are given as they are to be */
    MemoPart part(String words, UnaryOperator<String> names) {
        return new MemoPart(
                section,
                section.title(),
                sentences.stream().map(names).toList(),
                points.stream()
                        .map(p -> new MemoPoint(p.label(), names.apply(p.text())))
                        .toList(),
                quoted,
                words,
                plots,
                tables.stream()
                        .map(t -> new MemoTable(
                                t.caption(),
                                t.heads(),
                                t.rows().stream()
                                        .map(r -> r.stream().map(names).toList())
                                        .toList()))
                        .toList());
    }
}
