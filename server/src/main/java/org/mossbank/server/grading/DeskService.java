package org.mossbank.server.grading;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.answer.AnswerText;
import org.mossbank.server.masking.Masking;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyView;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What a rater does at the desk. */
@Service
@Transactional(readOnly = true)
class DeskService {
    private final RoundRepository rounds;
    private final SheetRepository sheets;
    private final SheetAnswerRepository sheetAnswers;
    private final GradeRepository grades;
    private final GradingChangeRepository changes;
    private final Studies studies;
    private final Prompts prompts;
    private final Masking masking;
    private final Rubrics rubrics;
    private final CurrentAccount current;
    private final EntityManager entities;
    private final Clock clock;

    DeskService(
            RoundRepository rounds,
            SheetRepository sheets,
            SheetAnswerRepository sheetAnswers,
            GradeRepository grades,
            GradingChangeRepository changes,
            Studies studies,
            Prompts prompts,
            Masking masking,
            Rubrics rubrics,
            CurrentAccount current,
            EntityManager entities,
            Clock clock) {
        this.rounds = rounds;
        this.sheets = sheets;
        this.sheetAnswers = sheetAnswers;
        this.grades = grades;
        this.changes = changes;
        this.studies = studies;
        this.prompts = prompts;
        this.masking = masking;
        this.rubrics = rubrics;
        this.current = current;
        this.entities = entities;
        this.clock = clock;
    }

    /** The sheets of whoever asks, by study, in the order in which they come. */
    @PreAuthorize("isAuthenticated()")
    public List<SheetSummary> mine() {
        List<Sheet> own = sheets.findByRaterIdOrderByStudyIdAscPlaceAsc(current.id());
        List<UUID> ids = own.stream().map(Sheet::id).toList();
        Map<UUID, Long> made = byId(sheets.countMarks(ids));
        Map<UUID, Long> answerCounts = byId(sheets.countAnswers(ids));
        Map<UUID, List<Sheet>> byStudy = own.stream().collect(Collectors.groupingBy(Sheet::studyId));
        Map<UUID, StudyView> studiesById = studies.byId(byStudy.keySet());
        List<SheetSummary> result = new ArrayList<>();
        byStudy.forEach((study, ofStudy) -> {
            Map<UUID, PromptView> promptsById = promptsById(study);
            List<CriterionView> criteria = rubrics.ofStudy(study);
            boolean closed = rounds.findById(study).orElseThrow().isClosed();
            for (Sheet sheet : ofStudy) {
                PromptView prompt = promptsById.get(sheet.promptId());
                result.add(new SheetSummary(
                        sheet.id(),
                        study,
                        studiesById.get(study).title(),
                        prompt.title(),
                        prompt.kind().name(),
                        sheet.place() + 1,
                        made.getOrDefault(sheet.id(), 0L),
                        answerCounts.getOrDefault(sheet.id(), 0L)
                                * applicable(criteria, prompt).size(),
                        sheet.sentAt().orElse(null),
                        closed,
                        prompt.isFaulty()));
            }
        });
        result.sort(java.util.Comparator.comparing(
                        (SheetSummary s) -> studiesById.get(s.studyId()).createdAt())
                .reversed()
                .thenComparing(SheetSummary::place));
        return result;
    }

    static Map<UUID, Long> byId(List<SheetCount> counts) {
        return counts.stream().collect(Collectors.toMap(SheetCount::id, SheetCount::count));
    }

    /** The criteria on which answers to this prompt are graded. */
    static List<CriterionView> applicable(List<CriterionView> criteria, PromptView prompt) {
        return criteria.stream().filter(c -> c.appliesTo(prompt.kind().id())).toList();
    }

    private Map<UUID, PromptView> promptsById(UUID study) {
        return prompts.ofStudy(study).stream().collect(Collectors.toMap(PromptView::id, Function.identity()));
    }

    /** @throws Problem 409 if the rater must first say what they expect; nothing is shown before */
    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    public SheetView sheet(UUID sheetId) {
        Sheet sheet = sheets.findById(sheetId).orElseThrow();
        refuseBeforeExpectation(sheet);
        PromptView prompt = promptsById(sheet.studyId()).get(sheet.promptId());
        List<CriterionView> criteria = applicable(rubrics.ofStudy(sheet.studyId()), prompt);
        return new SheetView(
                sheet.id(),
                sheet.studyId(),
                studies.get(sheet.studyId()).title(),
                sheet.place() + 1,
                sheets.findByStudyIdAndRaterIdOrderByPlace(sheet.studyId(), sheet.raterId())
                        .size(),
                sheet.isSent(),
                rounds.findById(sheet.studyId()).orElseThrow().isClosed(),
                prompt.isFaulty(),
                new SheetView.PromptOnSheet(
                        prompt.title(),
                        prompt.kind().name(),
                        prompt.content().language(),
                        prompt.content().request(),
                        prompt.content().constraints(),
                        prompt.content().startingFiles(),
                        prompt.content().keyPoints()),
                criteria.stream().map(c -> onSheet(c, prompt.kind().id())).toList(),
                answersOf(sheet, criteria));
    }

    private void refuseBeforeExpectation(Sheet sheet) {
        if (studies.awaitsExpectation(sheet.studyId(), sheet.raterId())
                && !rounds.findById(sheet.studyId()).orElseThrow().isClosed()) {
            throw new Problem(
                            ProblemType.EXPECTATION_FIRST,
                            "Before you see any answer, say what you expect; nobody reads it before the recommendation.")
                    .with("studyId", sheet.studyId());
        }
    }

    private static SheetView.CriterionOnSheet onSheet(CriterionView criterion, UUID kind) {
        return new SheetView.CriterionOnSheet(
                criterion.id(),
                criterion.name(),
                criterion.question(),
                criterion.levels().stream()
                        .map(level -> new SheetView.LevelOnSheet(
                                level.level(),
                                level.name(),
                                level.anchors().stream()
                                        .filter(a -> a.kindId().equals(kind))
                                        .map(CriterionView.AnchorView::text)
                                        .findFirst()
                                        .orElse(null)))
                        .toList());
    }

    private List<SheetView.AnswerOnSheet> answersOf(Sheet sheet, List<CriterionView> criteria) {
        List<SheetAnswer> onSheet = sheetAnswers.findBySheetIdInOrderByPlace(List.of(sheet.id()));
        Map<UUID, AnswerText> texts =
                masking.forRaters(onSheet.stream().map(SheetAnswer::answerId).toList());
        Map<Grade.Key, Grade> marks = gradesOf(onSheet);
        return onSheet.stream()
                .map(a -> new SheetView.AnswerOnSheet(
                        a.id(),
                        a.place() + 1,
                        texts.get(a.answerId()).outcome(),
                        texts.get(a.answerId()).text(),
                        a.reason(),
                        a.reasonRevision(),
                        criteria.stream()
                                .map(c -> Optional.ofNullable(marks.get(new Grade.Key(a.id(), c.id())))
                                        .map(SheetView.GradeOnSheet::of)
                                        .orElse(SheetView.GradeOnSheet.none(c.id())))
                                .toList()))
                .toList();
    }

    private Map<Grade.Key, Grade> gradesOf(List<SheetAnswer> onSheet) {
        return grades.ofSheetAnswers(onSheet.stream().map(SheetAnswer::id).toList()).stream()
                .collect(Collectors.toMap(Grade::key, Function.identity()));
    }

    /**
     * Sets one cell; when this returns, the grade is in the database.
     *
     * @throws Problem 409 if the cell changed since the rater saw it, the sheet was sent in or the round is closed
     */
    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    @Transactional
    public SheetView.GradeOnSheet setGrade(UUID sheetId, UUID sheetAnswerId, UUID criterionId, SetGrade request) {
        Sheet sheet = lockForWork(sheetId);
        SheetAnswer answer = answerOn(sheet, sheetAnswerId);
        PromptView prompt = promptsById(sheet.studyId()).get(sheet.promptId());
        CriterionView criterion = applicable(rubrics.ofStudy(sheet.studyId()), prompt).stream()
                .filter(c -> c.id().equals(criterionId))
                .findFirst()
                .orElseThrow(() -> Problem.notFound("This criterion"));
        Mark mark = markOf(request, criterion);
        Grade.Key key = new Grade.Key(answer.id(), criterionId);
        Grade grade = grades.findById(key).orElseGet(() -> Grade.of(key));
        if (isRepeat(request.changeId(), answer.id(), criterionId)) {
            return SheetView.GradeOnSheet.of(grade);
        }
        refuseIfStale(request.baseRevision(), grade.revision(), SheetView.GradeOnSheet.of(grade));
        refuseIfSent(sheet);
        boolean isNew = grade.revision() == 0;
        grade.set(mark);
        if (isNew) {
            entities.persist(grade);
        }
        entities.persist(GradingChange.ofGrade(request.changeId(), grade, clock.instant()));
        return SheetView.GradeOnSheet.of(grade);
    }

    private static Mark markOf(SetGrade request, CriterionView criterion) {
        Integer level = request.level();
        if (level != null && (level < 0 || level > criterion.highestLevel())) {
            throw Problem.invalid("level", "must be a whole number from 0 to " + criterion.highestLevel());
        }
        if (level != null && request.notApplicable()) {
            throw Problem.invalid("notApplicable", "must be false when there is a level");
        }
        return new Mark(level, request.notApplicable());
    }

    /** A reason and the revision it now has. */
    record ReasonOnSheet(String text, long revision) {}

    /** Sets the reason for one answer, with the same promises as a grade. */
    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    @Transactional
    public ReasonOnSheet setReason(UUID sheetId, UUID sheetAnswerId, SetReason request) {
        Sheet sheet = lockForWork(sheetId);
        SheetAnswer answer = answerOn(sheet, sheetAnswerId);
        if (request.text().indexOf('\0') >= 0) {
            throw Problem.invalid("text", "must not contain the character U+0000");
        }
        if (!isRepeat(request.changeId(), answer.id(), null)) {
            refuseIfStale(
                    request.baseRevision(),
                    answer.reasonRevision(),
                    new ReasonOnSheet(answer.reason(), answer.reasonRevision()));
            refuseIfSent(sheet);
            answer.explain(request.text());
            entities.persist(GradingChange.ofReason(request.changeId(), answer, clock.instant()));
        }
        return new ReasonOnSheet(answer.reason(), answer.reasonRevision());
    }

    /** Locks the sheet for one writer and holds the round open meanwhile. */
    private Sheet lockForWork(UUID sheetId) {
        Sheet sheet = sheets.findById(sheetId).orElseThrow();
        refuseBeforeExpectation(sheet);
        refuseIfClosed(rounds.holdOpen(sheet.studyId()).orElseThrow());
        Sheet locked = sheets.lock(sheetId).orElseThrow();
        entities.refresh(locked);
        return locked;
    }

    private static void refuseIfClosed(Round round) {
        if (round.isClosed()) {
            throw new Problem(ProblemType.ROUND_CLOSED, "The lead has closed the round. Grades stay as they are.");
        }
    }

    private SheetAnswer answerOn(Sheet sheet, UUID sheetAnswerId) {
        return sheetAnswers
                .findById(sheetAnswerId)
                .filter(a -> a.sheetId().equals(sheet.id()))
                .orElseThrow(() -> Problem.notFound("This answer"));
    }

    private boolean isRepeat(UUID changeId, UUID sheetAnswer, @Nullable UUID criterion) {
        Optional<GradingChange> earlier = changes.findById(changeId);
        if (earlier.isPresent() && !earlier.get().isOf(sheetAnswer, criterion)) {
            throw Problem.invalid("changeId", "must be new for every change");
        }
        return earlier.isPresent();
    }

    private static void refuseIfStale(long base, long now, Object currentState) {
        if (base != now) {
            throw new Problem(ProblemType.CHANGED_ELSEWHERE, "This was changed in another window since you saw it.")
                    .with("current", currentState);
        }
    }

    private static void refuseIfSent(Sheet sheet) {
        if (sheet.isSent()) {
            throw new Problem(ProblemType.SHEET_SENT, "This sheet was sent in. Take it back to change it.");
        }
    }

    /** What comes after a sheet was sent in; without a sheet, all are done. */
    record Sent(@Nullable UUID nextSheetId) {}

    /**
     * Sends a complete sheet in and names the next one left. Sending it twice is the same as once.
     *
     * @throws Problem 409 naming the empty cells if it is not complete
     */
    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    @Transactional
    public Sent send(UUID sheetId) {
        Sheet sheet = lockAlone(sheetId);
        if (!sheet.isSent()) {
            refuseIfIncomplete(sheet);
            sheet.send(clock.instant());
            rounds.findById(sheet.studyId()).orElseThrow().advance();
        }
        List<Sheet> own = sheets.findByStudyIdAndRaterIdOrderByPlace(sheet.studyId(), sheet.raterId());
        List<UUID> sound =
                prompts.sound(sheet.studyId()).stream().map(PromptView::id).toList();
        List<Sheet> left = own.stream()
                .filter(s -> !s.isSent() && sound.contains(s.promptId()))
                .toList();
        return new Sent(left.stream()
                .filter(s -> s.place() > sheet.place())
                .findFirst()
                .or(() -> left.stream().findFirst())
                .map(Sheet::id)
                .orElse(null));
    }

    /** Opens a sent sheet again; until it is sent in again it does not count. */
    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    @Transactional
    public void takeBack(UUID sheetId) {
        Sheet sheet = lockAlone(sheetId);
        if (sheet.isSent()) {
            sheet.takeBack();
            rounds.findById(sheet.studyId()).orElseThrow().advance();
        }
    }

    /** The round first, then the sheet, as in {@link #lockForWork}: one order, no deadlock. */
    private Sheet lockAlone(UUID sheetId) {
        Sheet sheet = sheets.findById(sheetId).orElseThrow();
        Round round = rounds.lock(sheet.studyId()).orElseThrow();
        entities.refresh(round);
        refuseIfClosed(round);
        Sheet locked = sheets.lock(sheetId).orElseThrow();
        entities.refresh(locked);
        return locked;
    }

    private void refuseIfIncomplete(Sheet sheet) {
        List<SheetAnswer> onSheet = sheetAnswers.findBySheetIdInOrderByPlace(List.of(sheet.id()));
        Map<Grade.Key, Grade> marks = gradesOf(onSheet);
        PromptView prompt = promptsById(sheet.studyId()).get(sheet.promptId());
        List<CriterionView> criteria = applicable(rubrics.ofStudy(sheet.studyId()), prompt);
        List<Problem.FieldError> missing = new ArrayList<>();
        for (SheetAnswer answer : onSheet) {
            for (CriterionView criterion : criteria) {
                Grade grade = marks.get(new Grade.Key(answer.id(), criterion.id()));
                if (grade == null || !grade.mark().isMade()) {
                    missing.add(new Problem.FieldError(
                            answer.id() + "/" + criterion.id(),
                            "Answer " + (answer.place() + 1) + " has no grade for " + criterion.name()));
                }
            }
        }
        if (!missing.isEmpty()) {
            throw new Problem(ProblemType.SHEET_INCOMPLETE, missing.size() + " grades are missing.")
                    .withErrors(missing);
        }
    }
}
