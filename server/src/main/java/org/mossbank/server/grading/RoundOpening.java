package org.mossbank.server.grading;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.grading.sheet.Coverage;
import org.mossbank.server.grading.sheet.GradeRepository;
import org.mossbank.server.grading.sheet.GradingChange;
import org.mossbank.server.grading.sheet.GradingChangeRepository;
import org.mossbank.server.grading.sheet.Remark;
import org.mossbank.server.grading.sheet.Round;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetAnswer;
import org.mossbank.server.grading.sheet.SheetAnswerRepository;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Progress;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** Lays down a round: its sheets, what is said on them already, and the history of that. */
@Component
class RoundOpening {
    private static final int SHEETS_AT_ONCE = 50;

    private final SheetAnswerRepository sheetAnswers;
    private final GradeRepository grades;
    private final GradingChangeRepository changes;
    private final EntityManager entities;
    private final JsonMapper json;
    private final Clock clock;

    RoundOpening(
            SheetAnswerRepository sheetAnswers,
            GradeRepository grades,
            GradingChangeRepository changes,
            EntityManager entities,
            JsonMapper json,
            Clock clock) {
        this.grades = grades;
        this.changes = changes;
        this.sheetAnswers = sheetAnswers;
        this.entities = entities;
        this.json = json;
        this.clock = clock;
    }

    /** Within the transaction of whoever asks. */
    void open(StudyId study, Grading.NewRound round, List<Grading.SheetRecord> starts) {
        entities.persist(Round.of(study, round));
        Instant now = clock.instant();
        Progress.stage("writing sheets", starts.size());
        for (int from = 0; from < starts.size(); from += SHEETS_AT_ONCE) {
            lay(study, starts.subList(from, Math.min(starts.size(), from + SHEETS_AT_ONCE)), now);
            // What is written is let go: else each flush looks through all of it again.
            entities.flush();
            entities.clear();
            Progress.advance(SHEETS_AT_ONCE);
        }
    }

    private void lay(StudyId study, List<Grading.SheetRecord> starts, Instant now) {
        Map<SheetAnswerId, Grading.AnswerRecord> begun = new LinkedHashMap<>();
        for (Grading.SheetRecord start : starts) {
            Sheet sheet = Sheet.of(study, start);
            entities.persist(sheet);
            for (Grading.AnswerRecord onSheet : start.answers()) {
                SheetAnswer answer = SheetAnswer.of(sheet.id(), onSheet.answerId(), onSheet.place());
                answer.begin(onSheet);
                entities.persist(answer);
                begun.put(answer.id(), onSheet);
            }
        }
        // What follows refers to these rows by id alone, so the order of writing is ours to keep.
        entities.flush();
        BegunCells cells = new BegunCells(json);
        begun.forEach((id, start) -> begin(id, start, cells));
        cells.write(grades, changes, now);
        List<SheetAnswerId> timed = begun.entrySet().stream()
                .filter(e -> e.getValue().judgement().activeMs() > 0)
                .map(Map.Entry::getKey)
                .toList();
        entities.flush();
        sheetAnswers.tellTimes(
                timed.stream().map(SheetAnswerId::value).toArray(UUID[]::new),
                timed.stream()
                        .map(id -> Require.known(begun, id).judgement().activeMs())
                        .toArray(Long[]::new));
    }

    private void begin(SheetAnswerId id, Grading.AnswerRecord start, BegunCells cells) {
        cells.add(id, start);
        start.coverage().forEach((point, verdict) -> {
            Coverage coverage = Coverage.of(new Coverage.Key(id, point));
            coverage.set(verdict);
            entities.persist(coverage);
            cells.changed(id, GradingChange.Part.COVERAGE, String.valueOf(point), verdict);
        });
        start.remarks().forEach(content -> {
            Remark remark = Remark.of(UUID.randomUUID(), id);
            remark.write(content);
            entities.persist(remark);
            cells.changed(id, GradingChange.Part.REMARK, remark.id().toString(), content);
        });
    }
}
