package org.mossbank.server.grading;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.grading.sheet.GradeRepository;
import org.mossbank.server.grading.sheet.GradingChange;
import org.mossbank.server.grading.sheet.GradingChangeRepository;
import org.mossbank.server.ids.SheetAnswerId;
import tools.jackson.databind.json.JsonMapper;

/**
 * Grades that sheets begin with, and what is written down of them so that the history is whole. There may be hundreds of
 * thousands: they are written many at a time, not as objects of the persistence context.
 */
final class BegunCells {
    private record Given(UUID answer, UUID criterion, Mark mark) {}

    private record Change(UUID answer, GradingChange.Part part, String item, String value) {}

    private final JsonMapper json;
    private final List<Given> grades = new ArrayList<>();
    private final List<Change> changes = new ArrayList<>();

    BegunCells(JsonMapper json) {
        this.json = json;
    }

    /** Grades, reason and judgement of an answer. */
    void add(SheetAnswerId id, Grading.AnswerRecord start) {
        Grading.Judgement judgement = start.judgement();
        changedIf(id, GradingChange.Part.REASON, start.reason().isEmpty() ? null : start.reason());
        changedIf(id, GradingChange.Part.WORKS, judgement.works());
        changedIf(id, GradingChange.Part.PREFERENCE, judgement.preference());
        changedIf(id, GradingChange.Part.GUESS, judgement.guess());
        start.marks().forEach((criterion, mark) -> {
            grades.add(new Given(id.value(), criterion.value(), mark));
            changed(id, GradingChange.Part.GRADE, criterion.toString(), mark);
        });
    }

    private void changedIf(SheetAnswerId id, GradingChange.Part part, @Nullable Object value) {
        if (value != null) {
            changed(id, part, "", value);
        }
    }

    void changed(SheetAnswerId id, GradingChange.Part part, String item, Object value) {
        changes.add(new Change(id.value(), part, item, json.writeValueAsString(value)));
    }

    /** Within the transaction of whoever asks, once the answers are there. */
    void write(GradeRepository gradeRows, GradingChangeRepository changeRows, Instant now) {
        gradeRows.begin(
                grades.stream().map(Given::answer).toArray(UUID[]::new),
                grades.stream().map(Given::criterion).toArray(UUID[]::new),
                grades.stream().map(g -> g.mark.level()).toArray(Integer[]::new),
                grades.stream().map(g -> g.mark.notApplicable()).toArray(Boolean[]::new),
                grades.stream()
                        .map(g -> g.mark.confidence() == null
                                ? null
                                : g.mark.confidence().name())
                        .toArray(String[]::new));
        changeRows.begin(
                changes.stream().map(Change::answer).toArray(UUID[]::new),
                changes.stream().map(c -> c.part.name()).toArray(String[]::new),
                changes.stream().map(Change::item).toArray(String[]::new),
                changes.stream().map(Change::value).toArray(String[]::new),
                now);
    }
}
