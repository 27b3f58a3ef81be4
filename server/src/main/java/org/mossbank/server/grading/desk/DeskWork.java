package org.mossbank.server.grading.desk;

import jakarta.persistence.EntityManager;
import jakarta.persistence.PersistenceException;
import java.time.Clock;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.function.BiConsumer;
import java.util.function.Function;
import org.hibernate.exception.ConstraintViolationException;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.grading.Guess;
import org.mossbank.server.grading.Mark;
import org.mossbank.server.grading.RemarkContent;
import org.mossbank.server.grading.sheet.Coverage;
import org.mossbank.server.grading.sheet.CoverageRepository;
import org.mossbank.server.grading.sheet.DeskCell;
import org.mossbank.server.grading.sheet.Grade;
import org.mossbank.server.grading.sheet.GradeRepository;
import org.mossbank.server.grading.sheet.GradingChange;
import org.mossbank.server.grading.sheet.GradingChange.Part;
import org.mossbank.server.grading.sheet.GradingChangeRepository;
import org.mossbank.server.grading.sheet.Remark;
import org.mossbank.server.grading.sheet.RemarkRepository;
import org.mossbank.server.grading.sheet.Round;
import org.mossbank.server.grading.sheet.RoundRepository;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetAnswer;
import org.mossbank.server.grading.sheet.SheetAnswerRepository;
import org.mossbank.server.grading.sheet.SheetRepository;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.Studies;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/**
 * What a rater sets on a sheet, cell by cell. When a method returns, the change is in the database with its history; it was
 * made on what the rater saw, or refused with what stands there now.
 */
@Service
@Transactional
class DeskWork {
    private final RoundRepository rounds;
    private final SheetRepository sheets;
    private final SheetAnswerRepository sheetAnswers;
    private final GradeRepository grades;
    private final CoverageRepository coverages;
    private final RemarkRepository remarks;
    private final GradingChangeRepository changes;
    private final SheetFrames frames;
    private final ExpectationGate expectations;
    private final GuessChoices guesses;
    private final Studies studies;
    private final EntityManager entities;
    private final JsonMapper json;
    private final Clock clock;

    DeskWork(
            RoundRepository rounds,
            SheetRepository sheets,
            SheetAnswerRepository sheetAnswers,
            GradeRepository grades,
            CoverageRepository coverages,
            RemarkRepository remarks,
            GradingChangeRepository changes,
            SheetFrames frames,
            ExpectationGate expectations,
            GuessChoices guesses,
            Studies studies,
            EntityManager entities,
            JsonMapper json,
            Clock clock) {
        this.rounds = rounds;
        this.sheets = sheets;
        this.sheetAnswers = sheetAnswers;
        this.grades = grades;
        this.coverages = coverages;
        this.remarks = remarks;
        this.changes = changes;
        this.frames = frames;
        this.expectations = expectations;
        this.guesses = guesses;
        this.studies = studies;
        this.entities = entities;
        this.json = json;
        this.clock = clock;
    }

    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    public SheetView.Saved setGrade(UUID sheetId, UUID answerId, UUID criterionId, DeskRequests.SetGrade request) {
        SheetFrame frame = frames.of(sheetId);
        CriterionView criterion = frame.criterion(criterionId).orElseThrow(() -> Problem.notFound("This criterion"));
        Mark mark = markOf(request, criterion);
        return change(
                new Spot(frame, answerId, Part.GRADE, criterionId.toString()),
                request,
                answer -> {
                    Grade.Key key = new Grade.Key(answer.id(), criterionId);
                    return grades.findById(key).orElseGet(() -> Grade.of(key));
                },
                (answer, grade) -> grade.set(mark));
    }

    private static Mark markOf(DeskRequests.SetGrade request, CriterionView criterion) {
        Integer level = request.level();
        if (level != null && (level < 0 || level > criterion.highestLevel())) {
            throw Problem.invalid("level", "must be a whole number from 0 to " + criterion.highestLevel());
        }
        if (level != null && request.notApplicable()) {
            throw Problem.invalid("notApplicable", "must be false when there is a level");
        }
        if (level == null && !request.notApplicable() && request.confidence() != null) {
            throw Problem.invalid("confidence", "must be absent when there is no grade");
        }
        return new Mark(level, request.notApplicable(), request.confidence());
    }

    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    public SheetView.Saved setReason(UUID sheetId, UUID answerId, DeskRequests.SetReason request) {
        return change(
                new Spot(frames.of(sheetId), answerId, Part.REASON, ""),
                request,
                SheetAnswer::reasonCell,
                (answer, cell) -> answer.explain(request.text()));
    }

    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    public SheetView.Saved setWorks(UUID sheetId, UUID answerId, DeskRequests.SetWorks request) {
        return change(
                new Spot(frames.of(sheetId), answerId, Part.WORKS, ""),
                request,
                SheetAnswer::worksCell,
                (answer, cell) -> answer.findWorks(request.works()));
    }

    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    public SheetView.Saved setPreference(UUID sheetId, UUID answerId, DeskRequests.SetPreference request) {
        return change(
                new Spot(frames.of(sheetId), answerId, Part.PREFERENCE, ""),
                request,
                SheetAnswer::preferenceCell,
                (answer, cell) -> answer.prefer(request.place()));
    }

    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    public SheetView.Saved setCoverage(UUID sheetId, UUID answerId, int point, DeskRequests.SetCoverage request) {
        SheetFrame frame = frames.of(sheetId);
        if (point < 0 || point >= frame.keyPoints()) {
            throw Problem.notFound("This key point");
        }
        return change(
                new Spot(frame, answerId, Part.COVERAGE, String.valueOf(point)),
                request,
                answer -> {
                    Coverage.Key key = new Coverage.Key(answer.id(), point);
                    return coverages.findById(key).orElseGet(() -> Coverage.of(key));
                },
                (answer, coverage) -> coverage.set(request.verdict()));
    }

    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    public SheetView.Saved setRemark(UUID sheetId, UUID answerId, UUID remarkId, DeskRequests.SetRemark request) {
        SheetFrame frame = frames.of(sheetId);
        RemarkContent content = request.remark();
        if (content != null) {
            if (!content.trait().isBlank() && !frame.hasTrait(content.trait().strip())) {
                throw Problem.invalid("remark.trait", "must be one of the rubric's: " + content.trait());
            }
        }
        return change(
                new Spot(frame, answerId, Part.REMARK, remarkId.toString()),
                request,
                answer -> remarkOn(answer, remarkId),
                (answer, remark) -> remark.write(content));
    }

    private Remark remarkOn(SheetAnswer answer, UUID remarkId) {
        Remark remark = remarks.findById(remarkId).orElseGet(() -> Remark.of(remarkId, answer.id()));
        if (!remark.sheetAnswerId().equals(answer.id())) {
            throw Problem.notFound("This remark");
        }
        return remark;
    }

    /** @throws Problem 409 before the sheet is sent in, or if the brief does not ask for guesses */
    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    public SheetView.Saved setGuess(UUID sheetId, UUID answerId, DeskRequests.SetGuess request) {
        SheetFrame frame = frames.of(sheetId);
        if (!studies.get(frame.studyId()).brief().raters().asksSourceGuess()) {
            throw new Problem(ProblemType.NOT_READY, "The brief asks for no guesses.");
        }
        List<UUID> choices = guesses.candidates(frame.studyId());
        Guess guess = guessOf(request, choices);
        return change(
                new Spot(frame, answerId, Part.GUESS, ""),
                request,
                answer -> answer.guessCell(choices),
                (answer, cell) -> answer.guess(guess));
    }

    private static @Nullable Guess guessOf(DeskRequests.SetGuess request, List<UUID> choices) {
        Integer choice = request.choice();
        if (choice == null) {
            return request.noIdea() ? new Guess(null) : null;
        }
        if (choice >= choices.size() || request.noIdea()) {
            throw Problem.invalid("choice", "must be one of the " + choices.size() + " choices, or no idea");
        }
        return new Guess(choices.get(choice));
    }

    /** How long the answers were looked at; for the lead's view of how grading goes. */
    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    public void tellTime(UUID sheetId, DeskRequests.TellTime request) {
        SheetFrame frame = frames.of(sheetId);
        List<UUID> own = sheetAnswers.findBySheetIdInOrderByPlace(List.of(frame.id())).stream()
                .map(SheetAnswer::id)
                .toList();
        for (DeskRequests.AnswerTime time : request.answers()) {
            if (!own.contains(time.answerId())) {
                throw Problem.notFound("This answer");
            }
            sheetAnswers.tellTime(time.answerId(), request.windowId(), time.ms());
        }
    }

    /** Where a change is made. */
    private record Spot(SheetFrame frame, UUID answerId, Part part, String item) {}

    /** Makes a change on what the rater saw and writes it down; the very same change again does nothing. */
    private <C extends DeskCell> SheetView.Saved change(
            Spot spot, DeskRequests.Change request, Function<SheetAnswer, C> find, BiConsumer<SheetAnswer, C> set) {
        Sheet sheet = lock(spot.frame());
        SheetAnswer answer = sheetAnswers
                .findById(spot.answerId())
                .filter(a -> a.sheetId().equals(sheet.id()))
                .orElseThrow(() -> Problem.notFound("This answer"));
        C cell = find.apply(answer);
        GradingChange.Place place = new GradingChange.Place(answer.id(), spot.part(), spot.item());
        if (request.baseRevision() != cell.revision()) {
            // The same change again stands on an older revision, so it need not be looked for before.
            Optional<GradingChange> earlier = made(request.changeId(), place);
            if (earlier.isPresent()) {
                long own = earlier.get().revision();
                return new SheetView.Saved(own, own == cell.revision() ? null : cell.state());
            }
            throw new Problem(ProblemType.CHANGED_ELSEWHERE, "This was changed in another window since you saw it.")
                    .with("current", cell.state());
        }
        refuseIfLocked(sheet, spot.part());
        boolean isNew = cell.revision() == 0;
        set.accept(answer, cell);
        if (isNew && cell.isRow()) {
            entities.persist(cell);
        }
        entities.persist(GradingChange.of(
                request.changeId(), place, json.writeValueAsString(request), cell.revision(), clock.instant()));
        flush();
        return new SheetView.Saved(cell.revision(), null);
    }

    private void flush() {
        try {
            entities.flush();
        } catch (PersistenceException e) {
            if (e instanceof ConstraintViolationException violation
                    && "grading_change_pkey".equals(violation.getConstraintName())) {
                throw Problem.invalid("changeId", "must be new for every change");
            }
            throw e;
        }
    }

    /** The round first, then the sheet: one order, no deadlock. */
    private Sheet lock(SheetFrame frame) {
        expectations.refuseBefore(frame.studyId(), frame.raterId());
        Round round = rounds.holdOpen(frame.studyId()).orElseThrow();
        round.refuseIfClosed();
        return sheets.lock(frame.id()).orElseThrow();
    }

    private Optional<GradingChange> made(UUID changeId, GradingChange.Place place) {
        Optional<GradingChange> earlier = changes.findById(changeId);
        if (earlier.isPresent() && !earlier.get().isOf(place)) {
            throw Problem.invalid("changeId", "must be new for every change");
        }
        return earlier;
    }

    private static void refuseIfLocked(Sheet sheet, Part part) {
        sheet.refuseIfWithdrawn();
        if (part == Part.GUESS && !sheet.isSent()) {
            throw new Problem(ProblemType.NOT_READY, "A guess is asked for once the sheet is sent in.");
        }
        if (part != Part.GUESS && sheet.isSent()) {
            throw new Problem(ProblemType.SHEET_SENT, "This sheet was sent in. Take it back to change it.");
        }
    }
}
