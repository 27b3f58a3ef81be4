package org.mossbank.server.grading;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Rounds, sheets and grades, for other modules. */
@Service
@Transactional(readOnly = true)
public class Grading {
    private final RoundRepository rounds;
    private final SheetRepository sheets;
    private final SheetAnswerRepository sheetAnswers;
    private final GradeRepository grades;
    private final Prompts prompts;
    private final EntityManager entities;
    private final Clock clock;

    Grading(
            RoundRepository rounds,
            SheetRepository sheets,
            SheetAnswerRepository sheetAnswers,
            GradeRepository grades,
            Prompts prompts,
            EntityManager entities,
            Clock clock) {
        this.rounds = rounds;
        this.sheets = sheets;
        this.sheetAnswers = sheetAnswers;
        this.grades = grades;
        this.prompts = prompts;
        this.entities = entities;
        this.clock = clock;
    }

    /** A sheet with all that is on it; places from 0. */
    public record SheetRecord(
            UUID raterId,
            UUID promptId,
            int place,
            boolean repeat,
            @Nullable Instant sentAt,
            List<AnswerRecord> answers) {}

    /** An answer's place, reason and marks, by criterion. */
    public record AnswerRecord(UUID answerId, int place, String reason, Map<UUID, Mark> marks) {}

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
        for (SheetRecord start : starts) {
            Sheet sheet = Sheet.of(study, start);
            entities.persist(sheet);
            start.answers().forEach(a -> addAnswer(sheet, a, clock.instant()));
        }
    }

    private void addAnswer(Sheet sheet, AnswerRecord start, Instant now) {
        SheetAnswer answer = SheetAnswer.of(sheet.id(), start.answerId(), start.place(), start.reason());
        entities.persist(answer);
        if (!start.reason().isEmpty()) {
            entities.persist(GradingChange.ofReason(UUID.randomUUID(), answer, now));
        }
        start.marks().forEach((criterion, mark) -> {
            Grade grade = Grade.of(new Grade.Key(answer.id(), criterion));
            grade.set(mark);
            entities.persist(grade);
            entities.persist(GradingChange.ofGrade(UUID.randomUUID(), grade, now));
        });
    }

    /** The round, if it was opened. */
    @SystemOnly
    public Optional<RoundState> round(UUID study) {
        return rounds.findById(study).map(Round::state);
    }

    /** How many sheets there are, and how many of them are sent in. */
    public record SheetTotals(int sent, int sheets) {}

    /** Of sheets for sound prompts. */
    @SystemOnly
    public SheetTotals totals(UUID study) {
        List<UUID> sound = sound(study);
        List<Sheet> all = sheets.findByStudyIdOrderByRaterIdAscPlaceAsc(study).stream()
                .filter(s -> sound.contains(s.promptId()))
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
        return DeskService.byId(sheets.ratersByAnswer(study, sound(study)));
    }

    /** Every sheet with all that is on it, by rater and place. */
    @SystemOnly
    public List<SheetRecord> records(UUID study) {
        return records(sheets.findByStudyIdOrderByRaterIdAscPlaceAsc(study));
    }

    private List<SheetRecord> records(List<Sheet> all) {
        List<SheetAnswer> onSheets = sheetAnswers.findBySheetIdInOrderByPlace(
                all.stream().map(Sheet::id).toList());
        Map<UUID, List<Grade>> marks = grades
                .ofSheetAnswers(onSheets.stream().map(SheetAnswer::id).toList())
                .stream()
                .collect(Collectors.groupingBy(g -> g.key().sheetAnswerId()));
        Map<UUID, List<SheetAnswer>> bySheet = onSheets.stream().collect(Collectors.groupingBy(SheetAnswer::sheetId));
        return all.stream()
                .map(s -> new SheetRecord(
                        s.raterId(),
                        s.promptId(),
                        s.place(),
                        s.isRepeat(),
                        s.sentAt().orElse(null),
                        bySheet.getOrDefault(s.id(), List.of()).stream()
                                .map(a -> record(a, marks.getOrDefault(a.id(), List.of())))
                                .toList()))
                .toList();
    }

    private static AnswerRecord record(SheetAnswer answer, List<Grade> marks) {
        return new AnswerRecord(
                answer.answerId(),
                answer.place(),
                answer.reason(),
                marks.stream()
                        .filter(g -> g.mark().isMade())
                        .collect(Collectors.toMap(g -> g.key().criterionId(), Grade::mark)));
    }

    /** The first sheets for one prompt that were sent in. */
    @SystemOnly
    public List<SheetRecord> sentRecords(UUID study, UUID prompt) {
        return records(sheets.findByStudyIdAndPromptId(study, prompt).stream()
                .filter(s -> s.isSent() && !s.isRepeat())
                .toList());
    }
}
