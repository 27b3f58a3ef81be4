package org.mossbank.server.archive;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.archive.SheetReader.Cell;
import org.mossbank.server.files.TableRow;
import org.mossbank.server.grading.Mark;
import org.mossbank.server.grading.RemarkContent;
import org.mossbank.server.grading.Verdict;
import org.mossbank.server.grading.Works;

/** What an archive has of raters' words about answers, beside their grades. */
final class SaidReader {
    private final ArchiveTables tables;
    private final Map<String, StudyArchive.ArchivePrompt> prompts;
    private final Map<String, Answers.NewAnswer> answers;

    SaidReader(
            ArchiveTables tables,
            Map<String, StudyArchive.ArchivePrompt> prompts,
            Map<String, Answers.NewAnswer> answers) {
        this.tables = tables;
        this.prompts = prompts;
        this.answers = answers;
    }

    /** What raters say of answers on their sheets. */
    record Said(
            Map<Cell, Map<String, Mark>> marks,
            Map<Cell, String> reasons,
            Map<Cell, StudyArchive.ArchiveJudgement> judgements,
            Map<Cell, Map<Integer, Verdict>> coverage,
            Map<Cell, List<RemarkContent>> remarks) {}

    Said read(Map<Cell, Map<String, Mark>> marks) {
        Map<Cell, String> reasons = new HashMap<>();
        tables.rows("reasons").forEach(r -> reasons.put(SheetReader.cell(r, answers), r.text("text")));
        Map<Cell, StudyArchive.ArchiveJudgement> judgements = new HashMap<>();
        tables.rows("judgements").forEach(r -> judgements.put(SheetReader.cell(r, answers), judgement(r)));
        return new Said(marks, reasons, judgements, coverage(), remarks());
    }

    private StudyArchive.ArchiveJudgement judgement(TableRow row) {
        String guess = row.textOrNull("guess");
        if (guess != null && row.truth("no_idea")) {
            tables.faults().add(row, "no_idea", "false or empty, as there is a guess", "true");
        }
        Long active = row.wholeOrNull("active_ms");
        return new StudyArchive.ArchiveJudgement(
                ArchiveTables.word(Works.class, row.textOrNull("works")),
                row.integerOrNull("preference"),
                guess,
                row.truth("no_idea"),
                active == null ? 0 : active);
    }

    private Map<Cell, Map<Integer, Verdict>> coverage() {
        Map<Cell, Map<Integer, Verdict>> coverage = new HashMap<>();
        for (TableRow row : tables.rows("coverage")) {
            Cell cell = SheetReader.cell(row, answers);
            int points =
                    prompts.get(cell.sheet().prompt()).content().keyPoints().size();
            int point = row.integer("point");
            if (point > points) {
                tables.faults().add(row, "point", "one of the prompt's " + points + " key points", row.text("point"));
            } else {
                coverage.computeIfAbsent(cell, c -> new TreeMap<>())
                        .put(point - 1, ArchiveTables.word(Verdict.class, row.text("verdict")));
            }
        }
        return coverage;
    }

    private Map<Cell, List<RemarkContent>> remarks() {
        Map<Cell, List<RemarkContent>> remarks = new HashMap<>();
        for (TableRow row : tables.rows("remarks")) {
            RemarkContent remark = new RemarkContent(
                    ArchiveTables.word(RemarkContent.Stance.class, row.text("stance")),
                    row.text("trait"),
                    row.text("words"),
                    lines(row));
            Optional<String> fault = remark.fault();
            if (fault.isEmpty()) {
                remarks.computeIfAbsent(SheetReader.cell(row, answers), c -> new ArrayList<>())
                        .add(remark);
            } else {
                tables.faults().add(row, "remark", fault.get(), row.text("remark"));
            }
        }
        return remarks;
    }

    private static RemarkContent.@Nullable Lines lines(TableRow row) {
        RemarkContent.Part part = ArchiveTables.word(RemarkContent.Part.class, row.textOrNull("part"));
        Integer from = row.integerOrNull("from_line");
        Integer to = row.integerOrNull("to_line");
        return part == null
                ? null
                : new RemarkContent.Lines(
                        part, row.textOrNull("path"), from == null ? 0 : from, to == null ? 0 : to, row.text("quote"));
    }
}
