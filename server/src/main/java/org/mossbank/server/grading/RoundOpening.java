package org.mossbank.server.grading;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.grading.sheet.Coverage;
import org.mossbank.server.grading.sheet.GradeRepository;
import org.mossbank.server.grading.sheet.GradingChange;
import org.mossbank.server.grading.sheet.GradingChangeRepository;
import org.mossbank.server.grading.sheet.Remark;
import org.mossbank.server.grading.sheet.Round;
import org.mossbank.server.grading.sheet.RoundRepository;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetAnswer;
import org.mossbank.server.grading.sheet.SheetAnswerRepository;
import org.mossbank.server.grading.sheet.SheetRepository;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Progress;
import org.mossbank.server.shared.database.Plans;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** Lays down a round: its sheets, what is said on them already, and the history of that. */
@Component
class RoundOpening {
    private static final int SHEETS_AT_ONCE = 50;

    private final RoundRepository rounds;
    private final SheetRepository sheets;
    private final SheetAnswerRepository sheetAnswers;
    private final GradeRepository grades;
    private final GradingChangeRepository changes;
    private final EntityManager entities;
    private final JsonMapper json;
    private final Clock clock;

    RoundOpening(
            RoundRepository rounds,
            SheetRepository sheets,
            SheetAnswerRepository sheetAnswers,
            GradeRepository grades,
            GradingChangeRepository changes,
            EntityManager entities,
            JsonMapper json,
            Clock clock) {
        this.rounds = rounds;
        this.sheets = sheets;
        this.grades = grades;
        this.changes = changes;
        this.sheetAnswers = sheetAnswers;
        this.entities = entities;
        this.json = json;
        this.clock = clock;
    }

    /** Within the transaction of whoever asks. */
    void open(StudyId study, Grading.NewRound round, List<Grading.SheetRecord> planned) {
        locked(study).open(round);
        entities.flush();
        Instant now = clock.instant();
        List<Grading.SheetRecord> starts = afterOthers(study, planned);
        Progress.stage("writing sheets", starts.size());
        Plans.anew(entities, starts.size());
        for (int from = 0; from < starts.size(); from += SHEETS_AT_ONCE) {
            lay(study, starts.subList(from, Math.min(starts.size(), from + SHEETS_AT_ONCE)), now);
            // What is written is let go: else each flush looks through all of it again.
            entities.flush();
            entities.clear();
            Progress.advance(SHEETS_AT_ONCE);
        }
    }

    /** The row that whatever happens to a sheet takes turns by. */
    private Round locked(StudyId study) {
        return rounds.lock(study).orElseGet(() -> {
            Round fresh = Round.before(study);
            entities.persist(fresh);
            return fresh;
        });
    }

    void calibrate(StudyId study, List<Grading.SheetRecord> starts) {
        locked(study);
        entities.flush();
        lay(study, afterOthers(study, starts), clock.instant());
    }

    /** What raters calibrate by comes first. */
    private List<Grading.SheetRecord> afterOthers(StudyId study, List<Grading.SheetRecord> starts) {
        Map<AccountId, Integer> next = sheets.findByStudyIdOrderByRaterIdAscPlaceAsc(study).stream()
                .collect(Collectors.toMap(Sheet::raterId, s -> s.place() + 1, Math::max));
        return next.isEmpty()
                ? starts
                : starts.stream()
                        .map(s -> s.after(next.getOrDefault(s.raterId(), 0)))
                        .toList();
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
        Plans.anew(entities, begun.size());
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
