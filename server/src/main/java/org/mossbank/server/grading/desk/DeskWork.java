package org.mossbank.server.grading.desk;

import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.grading.Guess;
import org.mossbank.server.grading.Mark;
import org.mossbank.server.grading.sheet.Coverage;
import org.mossbank.server.grading.sheet.CoverageRepository;
import org.mossbank.server.grading.sheet.Grade;
import org.mossbank.server.grading.sheet.GradeRepository;
import org.mossbank.server.grading.sheet.GradingChange.Part;
import org.mossbank.server.grading.sheet.SheetAnswer;
import org.mossbank.server.grading.sheet.SheetAnswerRepository;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.Studies;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * What a rater sets on a sheet, cell by cell. When a method returns, the change is in the database with its history; it was
 * made on what the rater saw, or refused with what stands there now.
 */
@Service
@Transactional
class DeskWork {
    private final SheetAnswerRepository sheetAnswers;
    private final GradeRepository grades;
    private final CoverageRepository coverages;
    private final SheetFrames frames;
    private final GuessChoices guesses;
    private final Studies studies;
    private final CellChanges cells;

    DeskWork(
            SheetAnswerRepository sheetAnswers,
            GradeRepository grades,
            CoverageRepository coverages,
            SheetFrames frames,
            GuessChoices guesses,
            Studies studies,
            CellChanges cells) {
        this.sheetAnswers = sheetAnswers;
        this.grades = grades;
        this.coverages = coverages;
        this.frames = frames;
        this.guesses = guesses;
        this.studies = studies;
        this.cells = cells;
    }

    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    public SheetView.Saved setGrade(
            SheetId sheetId, SheetAnswerId answerId, CriterionId criterionId, DeskRequests.SetGrade request) {
        SheetFrame frame = frames.of(sheetId);
        CriterionView criterion = frame.criterion(criterionId).orElseThrow(() -> Problem.notFound("This criterion"));
        Mark mark = markOf(request, criterion);
        return cells.change(
                new CellChanges.Spot(frame, answerId, Part.GRADE, criterionId.toString()),
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
    public SheetView.Saved setReason(SheetId sheetId, SheetAnswerId answerId, DeskRequests.SetReason request) {
        return cells.change(
                new CellChanges.Spot(frames.of(sheetId), answerId, Part.REASON, ""),
                request,
                SheetAnswer::reasonCell,
                (answer, cell) -> answer.explain(request.text()));
    }

    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    public SheetView.Saved setWorks(SheetId sheetId, SheetAnswerId answerId, DeskRequests.SetWorks request) {
        return cells.change(
                new CellChanges.Spot(frames.of(sheetId), answerId, Part.WORKS, ""),
                request,
                SheetAnswer::worksCell,
                (answer, cell) -> answer.findWorks(request.works(), Objects.requireNonNullElse(request.why(), "")));
    }

    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    public SheetView.Saved setPreference(SheetId sheetId, SheetAnswerId answerId, DeskRequests.SetPreference request) {
        return cells.change(
                new CellChanges.Spot(frames.of(sheetId), answerId, Part.PREFERENCE, ""),
                request,
                SheetAnswer::preferenceCell,
                (answer, cell) -> answer.prefer(request.place()));
    }

    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    public SheetView.Saved setCoverage(
            SheetId sheetId, SheetAnswerId answerId, int point, DeskRequests.SetCoverage request) {
        SheetFrame frame = frames.of(sheetId);
        if (point < 0 || point >= frame.keyPoints()) {
            throw Problem.notFound("This key point");
        }
        return cells.change(
                new CellChanges.Spot(frame, answerId, Part.COVERAGE, String.valueOf(point)),
                request,
                answer -> {
                    Coverage.Key key = new Coverage.Key(answer.id(), point);
                    return coverages.findById(key).orElseGet(() -> Coverage.of(key));
                },
                (answer, coverage) -> coverage.set(request.verdict()));
    }

    /** @throws Problem 409 before the sheet is sent in, or if the brief does not ask for guesses */
    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    public SheetView.Saved setGuess(SheetId sheetId, SheetAnswerId answerId, DeskRequests.SetGuess request) {
        SheetFrame frame = frames.of(sheetId);
        if (!studies.get(frame.studyId()).brief().raters().asksSourceGuess()) {
            throw new Problem(ProblemType.NOT_READY, "The brief asks for no guesses.");
        }
        List<CandidateId> choices = guesses.candidates(frame.studyId());
        Guess guess = guessOf(request, choices);
        return cells.change(
                new CellChanges.Spot(frame, answerId, Part.GUESS, ""),
                request,
                answer -> answer.guessCell(choices),
                (answer, cell) -> answer.guess(guess));
    }

    private static @Nullable Guess guessOf(DeskRequests.SetGuess request, List<CandidateId> choices) {
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
    public void tellTime(SheetId sheetId, DeskRequests.TellTime request) {
        SheetFrame frame = frames.of(sheetId);
        List<SheetAnswerId> own = sheetAnswers.findBySheetIdInOrderByPlace(List.of(frame.id())).stream()
                .map(SheetAnswer::id)
                .toList();
        for (DeskRequests.AnswerTime time : request.answers()) {
            if (!own.contains(time.answerId())) {
                throw Problem.notFound("This answer");
            }
            sheetAnswers.tellTime(time.answerId(), request.windowId(), time.ms());
        }
    }
}
