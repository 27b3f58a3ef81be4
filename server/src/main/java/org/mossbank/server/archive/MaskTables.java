package org.mossbank.server.archive;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import org.mossbank.core.masking.GiveAway;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.files.TableRow;
import org.mossbank.server.masking.Masking;

/** Reads what was masked, and the words that were looked for. */
final class MaskTables {
    private final ArchiveTables tables;

    MaskTables(ArchiveTables tables) {
        this.tables = tables;
    }

    StudyArchive.ArchiveMasking read(List<Answers.NewAnswer> answers) {
        Map<String, String> texts = new HashMap<>();
        answers.forEach(a -> texts.put(a.key(), a.wholeText()));
        TreeMap<String, List<Masking.Decided>> masks = new TreeMap<>();
        for (TableRow row : tables.rows("masks")) {
            Masking.Decided decided = new Masking.Decided(
                    row.integer("from"),
                    row.integer("to"),
                    row.text("found"),
                    Objects.requireNonNull(ArchiveTables.word(GiveAway.Sort.class, row.text("sort"))),
                    row.text("replacement"),
                    row.truth("accepted"),
                    Objects.requireNonNull(row.instantOrNull("decided_at")));
            List<Masking.Decided> ofAnswer = masks.computeIfAbsent(row.text("answer"), a -> new ArrayList<>());
            check(row, decided, texts.getOrDefault(row.text("answer"), ""), ofAnswer);
            ofAnswer.add(decided);
        }
        return new StudyArchive.ArchiveMasking(
                tables.rows("masking-words").stream().map(r -> r.text("word")).toList(), masks);
    }

    private void check(TableRow row, Masking.Decided decided, String text, List<Masking.Decided> before) {
        Masking.fault(text, decided)
                .ifPresent(expected -> tables.faults().add(row, "found", expected, decided.found()));
        if (before.stream().anyMatch(b -> b.from() < decided.to() && decided.from() < b.to())) {
            tables.faults().add(row, "from", "a stretch that overlaps no other of the answer", row.text("from"));
        }
    }
}
