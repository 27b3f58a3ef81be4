package org.mossbank.server.archive;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.mossbank.server.answer.specimen.Specimens;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.Tables;
import org.mossbank.server.grading.rows.SheetRows;
import org.mossbank.server.masking.MaskRows;
import org.mossbank.server.prompt.PromptRows.KeyedPrompt;
import org.mossbank.server.reconciliation.rows.SplitRows;
import org.mossbank.server.run.RunRows;

/** Specimens are graded while raters calibrate, and are nowhere else: whatever counts is of a candidate. */
final class SpecimenUse {
    private static final String ANSWER = "answer";

    private SpecimenUse() {}

    /** What names a specimen and must not goes to the faults. */
    static void check(Tables tables, List<Specimens.NewSpecimen> specimens, List<KeyedPrompt> prompts) {
        if (specimens.isEmpty()) {
            return;
        }
        Set<String> all = specimens.stream().map(Specimens.NewSpecimen::key).collect(Collectors.toSet());
        Set<String> counting = prompts.stream()
                .filter(p -> p.calibration() == null)
                .map(KeyedPrompt::key)
                .collect(Collectors.toSet());
        Set<String> ofCounting = new HashSet<>(specimens.stream()
                .filter(s -> counting.contains(s.prompt()))
                .map(Specimens.NewSpecimen::key)
                .toList());
        SheetRows.TABLES.forEach(table -> refuse(tables, table, ofCounting));
        List.of(SplitRows.TABLES, MaskRows.TABLES, RunRows.TABLES)
                .forEach(some -> some.forEach(table -> refuse(tables, table, all)));
    }

    private static void refuse(Tables tables, Table<?> table, Set<String> specimens) {
        tables.lines(table).stream()
                .filter(l -> specimens.contains(l.at().text(ANSWER)))
                .forEach(l -> tables.faults().add(l.at(), ANSWER, "an answer of a candidate", l.at().text(ANSWER)));
    }
}
