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
import org.mossbank.server.grading.sheet.Grade;
import org.mossbank.server.grading.sheet.GradingChange;
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
    private final EntityManager entities;
    private final JsonMapper json;
    private final Clock clock;

    RoundOpening(SheetAnswerRepository sheetAnswers, EntityManager entities, JsonMapper json, Clock clock) {
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
        begun.forEach((id, start) -> begin(id, start, now));
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

    private void begin(SheetAnswerId id, Grading.AnswerRecord start, Instant now) {
        History history = new History(id, now);
        history.begin(start);
        start.marks().forEach((criterion, mark) -> {
            Grade grade = Grade.of(new Grade.Key(id, criterion));
            grade.set(mark);
            entities.persist(grade);
            history.add(GradingChange.Part.GRADE, criterion.toString(), mark);
        });
        start.coverage().forEach((point, verdict) -> {
            Coverage coverage = Coverage.of(new Coverage.Key(id, point));
            coverage.set(verdict);
            entities.persist(coverage);
            history.add(GradingChange.Part.COVERAGE, String.valueOf(point), verdict);
        });
        start.remarks().forEach(content -> {
            Remark remark = Remark.of(UUID.randomUUID(), id);
            remark.write(content);
            entities.persist(remark);
            history.add(GradingChange.Part.REMARK, remark.id().toString(), content);
        });
    }

    /** Writes down what sheets begin with, so that the history is whole. */
    private final class History {
        private final SheetAnswerId sheetAnswer;
        private final Instant now;

        private History(SheetAnswerId sheetAnswer, Instant now) {
            this.sheetAnswer = sheetAnswer;
            this.now = now;
        }

        private void begin(Grading.AnswerRecord start) {
            Grading.Judgement judgement = start.judgement();
            if (!start.reason().isEmpty()) {
                add(GradingChange.Part.REASON, "", start.reason());
            }
            if (judgement.works() != null) {
                add(GradingChange.Part.WORKS, "", judgement.works());
            }
            if (judgement.preference() != null) {
                add(GradingChange.Part.PREFERENCE, "", judgement.preference());
            }
            if (judgement.guess() != null) {
                add(GradingChange.Part.GUESS, "", judgement.guess());
            }
        }

        private void add(GradingChange.Part part, String item, Object value) {
            entities.persist(GradingChange.of(
                    UUID.randomUUID(),
                    new GradingChange.Place(sheetAnswer, part, item),
                    json.writeValueAsString(value),
                    1,
                    now));
        }
    }
}
