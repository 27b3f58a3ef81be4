package org.mossbank.server.memo.paper;

import java.util.Locale;
import org.mossbank.server.memo.document.MemoDocument.MemoPlot;
import org.mossbank.server.memo.document.MemoDocument.PlotRow;
import org.mossbank.server.shared.wording.Numerals;

/** Draws estimates with their intervals; the table below has the same numbers, so it is hidden from readers aloud. */
final class MemoPlotDrawing {
    private static final int LEFT = 220;
    private static final int WIDTH = 700;
    private static final int RIGHT = WIDTH - 20;
    private static final int ROW = 26;
    private static final int LONGEST_NAME = 32;
    private static final int TICKS = 4;
    private static final int DOT = 5;

    private MemoPlotDrawing() {}

    static void draw(MemoPlot plot, Html out) {
        int height = (plot.rows().size() + 1) * ROW + DOT;
        out.raw("<figure><figcaption>").text(plot.caption()).raw("</figcaption>\n");
        out.raw("<svg viewBox=\"0 0 " + WIDTH + " " + height + "\" aria-hidden=\"true\">\n");
        for (int i = 0; i <= TICKS; i++) {
            double value = plot.from() + (plot.to() - plot.from()) * i / TICKS;
            String x = place(plot, value);
            out.raw("<line class=\"tick\" x1=\"" + x + "\" x2=\"" + x + "\" y1=\"0\" y2=\"" + (height - ROW) + "\"/>");
            out.raw("<text class=\"axis\" x=\"" + x + "\" y=\"" + (height - DOT) + "\">")
                    .text(Numerals.fixed(value, plot.to() > 1 ? 0 : 2))
                    .raw("</text>\n");
        }
        for (int i = 0; i < plot.rows().size(); i++) {
            row(plot, plot.rows().get(i), i * ROW + ROW / 2, out);
        }
        out.raw("</svg></figure>\n");
    }

    private static void row(MemoPlot plot, PlotRow row, int y, Html out) {
        String name = row.name().length() > LONGEST_NAME ? row.name().substring(0, LONGEST_NAME - 1) + "…" : row.name();
        out.raw("<text x=\"0\" y=\"" + (y + DOT) + "\">").text(name).raw("</text>");
        if (row.low() != null && row.high() != null) {
            out.raw("<line class=\"interval\" x1=\"" + place(plot, row.low()) + "\" x2=\"" + place(plot, row.high())
                    + "\" y1=\"" + y + "\" y2=\"" + y + "\"/>");
        }
        out.raw("<circle cx=\"" + place(plot, row.value()) + "\" cy=\"" + y + "\" r=\"" + DOT + "\"/>\n");
    }

    private static String place(MemoPlot plot, double value) {
        double inside = Math.max(plot.from(), Math.min(plot.to(), value));
        double share = (inside - plot.from()) / (plot.to() - plot.from());
        return String.format(Locale.ROOT, "%.1f", LEFT + share * (RIGHT - LEFT));
    }
}
