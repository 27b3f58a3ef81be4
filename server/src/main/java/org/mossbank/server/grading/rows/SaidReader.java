package org.mossbank.server.grading.rows;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.Tables;
import org.mossbank.server.grading.Mark;
import org.mossbank.server.grading.RemarkContent;
import org.mossbank.server.grading.Verdict;
import org.mossbank.server.grading.rows.SheetReader.Cell;

/** What rows have of raters' words about answers, beside their grades. */
final class SaidReader {
    private final Tables tables;
    private final SheetReader.Basis basis;

    SaidReader(Tables tables, SheetReader.Basis basis) {
        this.tables = tables;
        this.basis = basis;
    }

    /** What raters say of answers on their sheets. */
    record Said(
            Map<Cell, Map<String, Mark>> marks,
            Map<Cell, String> reasons,
            Map<Cell, KeyedSheet.KeyedJudgement> judgements,
            Map<Cell, Map<Integer, Verdict>> coverage,
            Map<Cell, List<RemarkContent>> remarks) {
        KeyedSheet.KeyedAnswer of(Cell cell) {
            return new KeyedSheet.KeyedAnswer(
                    cell.answer(),
                    reasons.getOrDefault(cell, ""),
                    marks.getOrDefault(cell, Map.of()),
                    judgements.getOrDefault(cell, KeyedSheet.KeyedJudgement.NONE),
                    coverage.getOrDefault(cell, Map.of()),
                    remarks.getOrDefault(cell, List.of()));
        }
    }

    Said read(Map<Cell, Map<String, Mark>> marks) {
        Map<Cell, String> reasons = new HashMap<>();
        tables.lines(SheetRows.REASONS)
                .forEach(l -> reasons.put(basis.cell(l.row()), l.row().text()));
        Map<Cell, KeyedSheet.KeyedJudgement> judgements = new HashMap<>();
        tables.lines(SheetRows.JUDGEMENTS).forEach(l -> judgements.put(basis.cell(l.row()), judgement(l)));
        return new Said(marks, reasons, judgements, coverage(), remarks());
    }

    private KeyedSheet.KeyedJudgement judgement(Line<SheetRows.JudgementRow> line) {
        SheetRows.JudgementRow row = line.row();
        if (row.guess() != null && row.noIdea()) {
            tables.faults().add(line.at(), "no_idea", "false or empty, as there is a guess", "true");
        }
        return new KeyedSheet.KeyedJudgement(
                row.works(),
                row.worksWhy() == null ? "" : row.worksWhy(),
                row.preference(),
                row.guess(),
                row.noIdea(),
                row.activeMs() == null ? 0 : row.activeMs());
    }

    private Map<Cell, Map<Integer, Verdict>> coverage() {
        Map<Cell, Map<Integer, Verdict>> coverage = new HashMap<>();
        for (Line<SheetRows.CoverageRow> line : tables.lines(SheetRows.COVERAGE)) {
            Cell cell = basis.cell(line.row());
            int points =
                    basis.prompt(cell.sheet().prompt()).content().keyPoints().size();
            int point = line.row().point();
            if (point > points) {
                tables.faults()
                        .add(
                                line.at(),
                                "point",
                                "one of the prompt's " + points + " key points",
                                String.valueOf(point));
            } else {
                coverage.computeIfAbsent(cell, c -> new TreeMap<>())
                        .put(point - 1, line.row().verdict());
            }
        }
        return coverage;
    }

    private Map<Cell, List<RemarkContent>> remarks() {
        Map<Cell, List<RemarkContent>> remarks = new HashMap<>();
        for (Line<SheetRows.RemarkRow> line : tables.lines(SheetRows.REMARKS)) {
            SheetRows.RemarkRow row = line.row();
            RemarkContent remark = new RemarkContent(row.stance(), row.trait(), row.words(), lines(row));
            Optional<String> fault = remark.fault();
            fault.ifPresent(f -> tables.faults().add(line.at(), "remark", f, String.valueOf(row.remark())));
            checkPlace(line);
            if (!row.trait().isBlank() && !basis.hasTrait(row.trait())) {
                tables.faults().add(line.at(), "trait", "a trait that the rubric names, or named before", row.trait());
            }
            remarks.computeIfAbsent(basis.cell(row), c -> new ArrayList<>()).add(remark);
        }
        return remarks;
    }

    /** Lines of something, and lines that are there: what would be dropped, or lead nowhere, is a fault. */
    private void checkPlace(Line<SheetRows.RemarkRow> line) {
        SheetRows.RemarkRow row = line.row();
        boolean placed = row.path() != null
                || row.fromLine() != null
                || row.toLine() != null
                || !row.quote().isEmpty();
        if (row.part() == null && placed) {
            tables.faults().add(line.at(), "part", "in what the lines are counted, as there are some", null);
        }
        int there = basis.lines(row.answer());
        if (row.part() == RemarkContent.Part.TEXT && row.toLine() != null && row.toLine() > there) {
            tables.faults()
                    .add(
                            line.at(),
                            "to_line",
                            "a line of the answer, which has " + there,
                            row.toLine().toString());
        }
    }

    private static RemarkContent.@Nullable Lines lines(SheetRows.RemarkRow row) {
        return row.part() == null
                ? null
                : new RemarkContent.Lines(
                        row.part(),
                        row.path(),
                        row.fromLine() == null ? 0 : row.fromLine(),
                        row.toLine() == null ? 0 : row.toLine(),
                        row.quote());
    }
}
