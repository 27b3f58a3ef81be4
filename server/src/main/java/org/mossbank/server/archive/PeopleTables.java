package org.mossbank.server.archive;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.mossbank.server.files.TableRow;
import org.mossbank.server.prompt.ReadBackVerdict;

/** Reads who grades, what they expected and how they read prompts back. */
final class PeopleTables {
    private final ArchiveTables tables;

    PeopleTables(ArchiveTables tables) {
        this.tables = tables;
    }

    /** @param closed whether the round is over; only then may the lead be one of the raters */
    StudyArchive.People read(boolean closed) {
        List<StudyArchive.Rater> raters = new ArrayList<>();
        for (TableRow row : tables.rows("raters")) {
            boolean lead = row.truth("lead");
            if (lead && (!closed || raters.stream().anyMatch(StudyArchive.Rater::lead))) {
                tables.faults().add(row, "lead", "one lead at most, and only in a study whose round is closed", "true");
            }
            raters.add(new StudyArchive.Rater(row.text("rater"), row.text("name"), lead));
        }
        return new StudyArchive.People(raters, expectations(), readBacks());
    }

    private List<StudyArchive.Expected> expectations() {
        return tables.rows("expectations").stream()
                .map(r -> new StudyArchive.Expected(
                        r.textOrNull("rater"),
                        r.text("expects"),
                        r.text("uses_today"),
                        Objects.requireNonNull(r.instantOrNull("declared_at"))))
                .toList();
    }

    private List<StudyArchive.ReadBackRow> readBacks() {
        List<StudyArchive.ReadBackRow> readBacks = new ArrayList<>();
        for (TableRow row : tables.rows("read-backs")) {
            String answer = row.textOrNull("answer");
            Instant answeredAt = row.instantOrNull("answered_at");
            ReadBackVerdict verdict = ArchiveTables.word(ReadBackVerdict.class, row.textOrNull("verdict"));
            if ((answer == null) != (answeredAt == null)) {
                tables.faults().add(row, "answered_at", "a time if and only if there is an answer", null);
            }
            if (verdict != null && answer == null) {
                tables.faults().add(row, "verdict", "nothing, as there is no answer", row.textOrNull("verdict"));
            }
            readBacks.add(new StudyArchive.ReadBackRow(
                    row.text("prompt"),
                    row.text("reader"),
                    Objects.requireNonNull(row.instantOrNull("asked_at")),
                    answer,
                    answeredAt,
                    verdict));
        }
        return readBacks;
    }
}
