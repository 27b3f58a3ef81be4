package org.mossbank.server.grading;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** Rounds, sheets and grades, for other modules. */
@Service
@Transactional(readOnly = true)
public class Grading {
    private final RoundRepository rounds;
    private final SheetRepository sheets;
    private final SheetAnswerRepository sheetAnswers;
    private final GradeRepository grades;
    private final CoverageRepository coverages;
    private final RemarkRepository remarks;
    private final Prompts prompts;
    private final EntityManager entities;
    private final JsonMapper json;
    private final Clock clock;

    Grading(
            RoundRepository rounds,
            SheetRepository sheets,
            SheetAnswerRepository sheetAnswers,
            GradeRepository grades,
            CoverageRepository coverages,
            RemarkRepository remarks,
            Prompts prompts,
            EntityManager entities,
            JsonMapper json,
            Clock clock) {
        this.rounds = rounds;
        this.sheets = sheets;
        this.sheetAnswers = sheetAnswers;
        this.grades = grades;
        this.coverages = coverages;
        this.remarks = remarks;
        this.prompts = prompts;
        this.entities = entities;
        this.json = json;
        this.clock = clock;
    }

    /**
     * A sheet with all that is on it; places from 0.
     *
     * @param withdrawn absent unless the lead withdrew it; then nothing on it counts
     */
    public record SheetRecord(
            UUID raterId,
            UUID promptId,
            int place,
            boolean repeat,
            @Nullable Instant sentAt,
            @Nullable Withdrawn withdrawn,
            List<AnswerRecord> answers) {}

    /** When and why the lead withdrew a sheet. */
    public record Withdrawn(Instant at, String reason) {}

    /**
     * What a rater says of one answer.
     *
     * @param place    on the sheet, from 0
     * @param marks    by criterion
     * @param coverage by key point, from 0
     */
    public record AnswerRecord(
            UUID answerId,
            int place,
            String reason,
            Map<UUID, Mark> marks,
            Judgement judgement,
            Map<Integer, Verdict> coverage,
            List<RemarkContent> remarks) {
        /** An answer of which nothing is said yet. */
        public static AnswerRecord blank(UUID answerId, int place) {
            return new AnswerRecord(answerId, place, "", Map.of(), Judgement.NONE, Map.of(), List.of());
        }
    }

    /**
     * What a rater says of an answer as a whole.
     *
     * @param preference place in the order of preference, from 1
     * @param activeMs   how long it was looked at, in milliseconds; 0 if that was not measured
     */
    public record Judgement(
            @Nullable Works works,
            @Nullable Integer preference,
            @Nullable Guess guess,
            long activeMs) {
        public static final Judgement NONE = new Judgement(null, null, null, 0);
    }

    /** How the round was planned, and from when to when it runs. */
    public record NewRound(
            Instant openedAt,
            @Nullable Instant closedAt,
            @Nullable Integer ratersAnAnswer,
            @Nullable Double repeatShare,
            boolean leadWasBlind) {}

    /**
     * The round as it stands.
     *
     * @param revision     counts up with everything that figures are computed from
     * @param leadWasBlind whether the lead graded, and saw no more than a rater meanwhile
     */
    public record RoundState(
            Instant openedAt,
            @Nullable Instant closedAt,
            long revision,
            @Nullable Integer ratersAnAnswer,
            @Nullable Double repeatShare,
            boolean leadWasBlind) {}

    /** Opens the round with its sheets, empty or partly graded; a closing time makes it a closed one. */
    @SystemOnly
    @Transactional
    public void open(UUID study, NewRound round, List<SheetRecord> starts) {
        entities.persist(Round.of(study, round));
        Map<UUID, AnswerRecord> begun = new LinkedHashMap<>();
        for (SheetRecord start : starts) {
            Sheet sheet = Sheet.of(study, start);
            entities.persist(sheet);
            for (AnswerRecord onSheet : start.answers()) {
                SheetAnswer answer = SheetAnswer.of(sheet.id(), onSheet.answerId(), onSheet.place());
                answer.begin(onSheet);
                entities.persist(answer);
                begun.put(answer.id(), onSheet);
            }
        }
        // What follows refers to these rows by id alone, so the order of writing is ours to keep.
        entities.flush();
        Instant now = clock.instant();
        begun.forEach((id, start) -> begin(id, start, now));
    }

    private void begin(UUID id, AnswerRecord start, Instant now) {
        History history = new History(id, now);
        history.begin(start);
        if (start.judgement().activeMs() > 0) {
            sheetAnswers.tellTime(id, UUID.randomUUID(), start.judgement().activeMs());
        }
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
        private final UUID sheetAnswer;
        private final Instant now;

        private History(UUID sheetAnswer, Instant now) {
            this.sheetAnswer = sheetAnswer;
            this.now = now;
        }

        private void begin(AnswerRecord start) {
            Judgement judgement = start.judgement();
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

    /** The round, if it was opened. */
    @SystemOnly
    public Optional<RoundState> round(UUID study) {
        return rounds.findById(study).map(Round::state);
    }

    /** How many sheets there are, and how many of them are sent in. */
    public record SheetTotals(int sent, int sheets) {}

    /** Of sheets for sound prompts that were not withdrawn. */
    @SystemOnly
    public SheetTotals totals(UUID study) {
        List<UUID> sound = sound(study);
        List<Sheet> all = sheets.findByStudyIdOrderByRaterIdAscPlaceAsc(study).stream()
                .filter(s -> sound.contains(s.promptId()) && !s.isWithdrawn())
                .toList();
        return new SheetTotals((int) all.stream().filter(Sheet::isSent).count(), all.size());
    }

    private List<UUID> sound(UUID study) {
        return prompts.sound(study).stream().map(PromptView::id).toList();
    }

    /** Grades on sheets that were sent in for sound prompts, in a stable order; repeats are left out. */
    @SystemOnly
    public List<SentGrade> sentGrades(UUID study) {
        return sheets.sentGrades(study, sound(study), false);
    }

    /** Grades on repeats that were sent in: what self-agreement sets against the first ones. */
    @SystemOnly
    public List<SentGrade> repeatGrades(UUID study) {
        return sheets.sentGrades(study, sound(study), true);
    }

    /** How many raters have sent in a sheet with each answer to a sound prompt; answers that none has are left out. */
    @SystemOnly
    public Map<UUID, Long> ratersByAnswer(UUID study) {
        return SheetCount.byId(sheets.ratersByAnswer(study, sound(study)));
    }

    /** Every sheet with all that is on it, by rater and place. */
    @SystemOnly
    public List<SheetRecord> records(UUID study) {
        return records(sheets.findByStudyIdOrderByRaterIdAscPlaceAsc(study));
    }

    private List<SheetRecord> records(List<Sheet> all) {
        List<SheetAnswer> onSheets = sheetAnswers.findBySheetIdInOrderByPlace(
                all.stream().map(Sheet::id).toList());
        List<UUID> ids = onSheets.stream().map(SheetAnswer::id).toList();
        Said said = new Said(
                grades.ofSheetAnswers(ids).stream()
                        .collect(Collectors.groupingBy(g -> g.key().sheetAnswerId())),
                coverages.ofSheetAnswers(ids).stream()
                        .collect(Collectors.groupingBy(c -> c.key().sheetAnswerId())),
                remarks.ofSheetAnswers(ids).stream().collect(Collectors.groupingBy(Remark::sheetAnswerId)),
                times(ids));
        Map<UUID, List<SheetAnswer>> bySheet = onSheets.stream().collect(Collectors.groupingBy(SheetAnswer::sheetId));
        return all.stream()
                .map(s -> new SheetRecord(
                        s.raterId(),
                        s.promptId(),
                        s.place(),
                        s.isRepeat(),
                        s.sentAt().orElse(null),
                        s.withdrawn(),
                        bySheet.getOrDefault(s.id(), List.of()).stream()
                                .map(said::of)
                                .toList()))
                .toList();
    }

    private Map<UUID, Long> times(List<UUID> ids) {
        return ids.isEmpty()
                ? Map.of()
                : sheetAnswers.activeMs(ids).stream()
                        .collect(Collectors.toMap(
                                SheetAnswerRepository.ActiveTime::getId, SheetAnswerRepository.ActiveTime::getMs));
    }

    /** What was said of answers on sheets, by the answer's id there. */
    private record Said(
            Map<UUID, List<Grade>> marks,
            Map<UUID, List<Coverage>> coverage,
            Map<UUID, List<Remark>> remarks,
            Map<UUID, Long> activeMs) {
        AnswerRecord of(SheetAnswer answer) {
            Map<Integer, Verdict> verdicts = new TreeMap<>();
            for (Coverage one : coverage.getOrDefault(answer.id(), List.of())) {
                if (one.verdict() != null) {
                    verdicts.put(one.key().point(), one.verdict());
                }
            }
            return new AnswerRecord(
                    answer.answerId(),
                    answer.place(),
                    answer.reason(),
                    marks.getOrDefault(answer.id(), List.of()).stream()
                            .filter(g -> g.mark().isMade())
                            .collect(Collectors.toMap(g -> g.key().criterionId(), Grade::mark)),
                    new Judgement(
                            answer.works(),
                            answer.preference(),
                            answer.guess(),
                            activeMs.getOrDefault(answer.id(), 0L)),
                    verdicts,
                    remarks.getOrDefault(answer.id(), List.of()).stream()
                            .flatMap(r -> r.content().stream())
                            .toList());
        }
    }

    /** The first sheets for one prompt that were sent in. */
    @SystemOnly
    public List<SheetRecord> sentRecords(UUID study, UUID prompt) {
        return records(sheets.findByStudyIdAndPromptId(study, prompt).stream()
                .filter(s -> s.isSent() && !s.isRepeat() && !s.isWithdrawn())
                .toList());
    }
}
