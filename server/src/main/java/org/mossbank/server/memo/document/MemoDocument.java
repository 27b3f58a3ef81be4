package org.mossbank.server.memo.document;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.time.Instant;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;

/**
 * What a memo says, whatever it is written down as. Frozen as it is when it is signed.
 *
 * @param title    of the study
 * @param at       when its figures were read
 * @param revision of the grades that they rest on
 * @param names    how it calls those who graded
 * @param parts    in the order of reading
 * @param figures  each figure that it holds, to be worked out again
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record MemoDocument(
        String title, Instant at, long revision, NamesShown names, List<MemoPart> parts, List<MemoFigure> figures) {

    /** @throws IllegalArgumentException if a part is there twice */
    public MemoDocument {
        Objects.requireNonNull(title);
        Objects.requireNonNull(at);
        Objects.requireNonNull(names);
        parts = List.copyOf(parts);
        figures = List.copyOf(figures);
        Require.that(
                parts.stream().map(MemoPart::section).distinct().count() == parts.size(),
                "parts",
                "must be there once each",
                parts.size());
    }

    /**
     * One part.
     *
     * @param section   which one
     * @param title     its heading
     * @param sentences plain text, one paragraph each
     * @param points    what is said under a label each
     * @param quoted    Markdown that stands elsewhere in the study; may be empty
     * @param words     what the lead writes, Markdown; may be empty
     * @param plots     pictures of estimates
     * @param tables    in their order; the appendix's is asked for by itself
     */
    public record MemoPart(
            MemoSection section,
            String title,
            List<String> sentences,
            List<MemoPoint> points,
            String quoted,
            String words,
            List<MemoPlot> plots,
            List<MemoTable> tables) {
        public MemoPart {
            Objects.requireNonNull(section);
            Objects.requireNonNull(title);
            Objects.requireNonNull(quoted);
            Objects.requireNonNull(words);
            sentences = List.copyOf(sentences);
            points = List.copyOf(points);
            plots = List.copyOf(plots);
            tables = List.copyOf(tables);
        }
    }

    /**
     * A label, and what is said of it.
     *
     * @param label what it is about
     * @param text  plain
     */
    public record MemoPoint(String label, String text) {
        public MemoPoint {
            Objects.requireNonNull(label);
            Objects.requireNonNull(text);
        }
    }

    /**
     * Estimates with their intervals on one axis; a table of the part holds the same numbers.
     *
     * @param caption what it shows
     * @param unit    of the axis
     * @param from    where the axis begins
     * @param to      where it ends
     * @param rows    one an estimate
     */
    public record MemoPlot(String caption, String unit, double from, double to, List<PlotRow> rows) {
        /** @throws IllegalArgumentException unless the axis has a length */
        public MemoPlot {
            Objects.requireNonNull(caption);
            Objects.requireNonNull(unit);
            rows = List.copyOf(rows);
            Require.that(from < to, "from", "must lie below the end of the axis", from);
        }
    }

    /**
     * A row of a plot.
     *
     * @param name what is estimated
     * @param low  lower limit; absent where there is no interval
     * @param high upper limit; absent with the lower
     */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record PlotRow(
            String name,
            double value,
            @Nullable Double low,
            @Nullable Double high) {}

    /**
     * A table.
     *
     * @param caption what it shows
     * @param heads   of its columns
     * @param rows    each with a cell for each head
     */
    public record MemoTable(String caption, List<MemoColumn> heads, List<List<String>> rows) {
        /** @throws IllegalArgumentException if a row has more or fewer cells than there are heads */
        public MemoTable {
            Objects.requireNonNull(caption);
            heads = List.copyOf(heads);
            rows = rows.stream().map(List::copyOf).toList();
            int columns = heads.size();
            rows.forEach(r -> Require.that(r.size() == columns, "row", "must have a cell for each head", r.size()));
        }
    }

    /** The head of a column, and whether figures stand in it. */
    public record MemoColumn(String text, boolean figures) {
        public MemoColumn {
            Objects.requireNonNull(text);
        }
    }

    /**
     * A figure as it was worked out, with all its digits.
     *
     * @param name what it is, by the keys of an archive: {@code standing/<candidate>/score}
     */
    public record MemoFigure(String name, double value) {
        public MemoFigure {
            Objects.requireNonNull(name);
        }
    }
}
