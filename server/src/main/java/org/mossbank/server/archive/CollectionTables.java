package org.mossbank.server.archive;

import java.math.BigDecimal;
import java.util.Objects;
import java.util.SortedMap;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.files.TableRow;
import org.mossbank.server.run.Runs;
import org.mossbank.server.source.SourceContent;
import org.mossbank.server.source.Sources;

/** Reads sources and runs from their tables. */
final class CollectionTables {
    private static final int MOST_COST_DECIMALS = 6;

    private final ArchiveTables tables;

    CollectionTables(ArchiveTables tables) {
        this.tables = tables;
    }

    /** @param mostFollowUps as study.json has it */
    StudyArchive.ArchiveCollection read(@Nullable Integer mostFollowUps) {
        SortedMap<String, SourceContent> sources = new TreeMap<>();
        for (TableRow row : tables.rows("sources")) {
            SourceContent source = source(row);
            Sources.fault(source)
                    .ifPresent(f ->
                            tables.faults().add(row, column(f.field()), f.rule(), row.textOrNull(column(f.field()))));
            sources.put(row.text("candidate"), source);
        }
        return new StudyArchive.ArchiveCollection(
                mostFollowUps,
                sources,
                tables.rows("runs").stream().map(this::run).toList());
    }

    private static String column(String field) {
        return field.replaceAll("([A-Z])", "_$1").toLowerCase(java.util.Locale.ROOT);
    }

    private SourceContent source(TableRow row) {
        return new SourceContent(
                row.text("url"),
                Objects.requireNonNull(ArchiveTables.word(SourceContent.Method.class, row.text("method"))),
                tables.inPlaces("source-headers", "candidate", row.text("candidate")).stream()
                        .map(h -> new SourceContent.Header(h.text("name"), h.text("value")))
                        .toList(),
                row.text("body"),
                row.text("turn_asked"),
                row.text("turn_replied"),
                Objects.requireNonNull(ArchiveTables.word(SourceContent.Shape.class, row.text("shape"))),
                row.text("text_pointer"),
                row.text("input_tokens_pointer"),
                row.text("output_tokens_pointer"),
                row.text("finish_pointer"),
                ArchiveTables.list(row.text("complete_words")),
                ArchiveTables.list(row.text("refused_words")),
                row.text("end_mark"),
                row.integer("most_output_tokens"),
                row.integer("time_limit_ms"),
                row.integer("most_tries"),
                row.integer("most_at_once"));
    }

    private StudyArchive.ArchiveRun run(TableRow row) {
        BigDecimal budget = amount(row, "budget_cost");
        return new StudyArchive.ArchiveRun(
                new Runs.RunHead(
                        row.text("run"),
                        row.text("started_by"),
                        Objects.requireNonNull(row.instantOrNull("started_at")),
                        row.integer("attempts"),
                        row.integer("follow_ups"),
                        budget,
                        row.wholeOrNull("budget_tokens"),
                        row.textOrNull("currency"),
                        row.text("state").equals("finished"),
                        row.text("reason")),
                tables.inPlaces("run-cells", "run", row.text("run")).stream()
                        .map(this::cell)
                        .toList());
    }

    private StudyArchive.ArchiveCell cell(TableRow row) {
        return new StudyArchive.ArchiveCell(
                row.integer("group"),
                row.text("prompt"),
                row.text("candidate"),
                row.integer("attempt"),
                row.text("state"),
                row.textOrNull("own_follow_up"),
                row.integer("turn"),
                row.integer("tries"),
                Objects.requireNonNull(amount(row, "spent_cost")),
                Objects.requireNonNull(row.wholeOrNull("spent_tokens")),
                row.text("notes"),
                row.textOrNull("late_reply"),
                row.textOrNull("answer"));
    }

    private @Nullable BigDecimal amount(TableRow row, String column) {
        BigDecimal amount = TableRow.plain(row.decimalOrNull(column));
        if (amount != null && amount.scale() > MOST_COST_DECIMALS) {
            tables.faults().add(row, column, "at most six decimals", row.text(column));
        }
        return amount;
    }
}
