package org.mossbank.server.grading.desk;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.grading.Mark;
import org.mossbank.server.grading.sheet.Grade;
import org.mossbank.server.grading.sheet.GradeRepository;
import org.mossbank.server.grading.sheet.Remark;
import org.mossbank.server.grading.sheet.RemarkRepository;
import org.mossbank.server.grading.sheet.Round;
import org.mossbank.server.grading.sheet.RoundRepository;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetAnswer;
import org.mossbank.server.grading.sheet.SheetAnswerRepository;
import org.mossbank.server.grading.sheet.SheetEvent;
import org.mossbank.server.grading.sheet.SheetRepository;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.RaterTerms;
import org.mossbank.server.study.Studies;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Sending a sheet in, and taking it back. */
@Service
@Transactional
class SheetSending {
    private final RoundRepository rounds;
    private final SheetRepository sheets;
    private final SheetAnswerRepository sheetAnswers;
    private final GradeRepository grades;
    private final RemarkRepository remarks;
    private final SheetFrames frames;
    private final Studies studies;
    private final Prompts prompts;
    private final Accounts accounts;
    private final EntityManager entities;
    private final Clock clock;

    SheetSending(
            RoundRepository rounds,
            SheetRepository sheets,
            SheetAnswerRepository sheetAnswers,
            GradeRepository grades,
            RemarkRepository remarks,
            SheetFrames frames,
            Studies studies,
            Prompts prompts,
            Accounts accounts,
            EntityManager entities,
            Clock clock) {
        this.rounds = rounds;
        this.sheets = sheets;
        this.sheetAnswers = sheetAnswers;
        this.grades = grades;
        this.remarks = remarks;
        this.frames = frames;
        this.studies = studies;
        this.prompts = prompts;
        this.accounts = accounts;
        this.entities = entities;
        this.clock = clock;
    }

    /** What comes after a sheet was sent in; without a sheet, all are done. */
    record Sent(@Nullable SheetId nextSheetId) {}

    /**
     * Sends a complete sheet in and names the next one left. Sending it twice is the same as once.
     *
     * @throws Problem 409 naming what is missing if it is not complete
     */
    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    public Sent send(SheetId sheetId) {
        Sheet sheet = lockAlone(sheetId);
        if (!sheet.isSent()) {
            sheet.refuseIfWithdrawn();
            refuseIfIncomplete(sheet);
            sheet.send(clock.instant());
            happened(sheet, SheetEvent.Sort.SENT);
        }
        List<PromptId> sound = prompts.soundIds(sheet.studyId());
        List<Sheet> left = sheets.findByStudyIdAndRaterIdOrderByPlace(sheet.studyId(), sheet.raterId()).stream()
                .filter(s -> !s.isSent() && !s.isWithdrawn() && sound.contains(s.promptId()))
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
    public void takeBack(SheetId sheetId) {
        Sheet sheet = lockAlone(sheetId);
        if (sheet.isSent()) {
            sheet.refuseIfWithdrawn();
            sheet.takeBack();
            happened(sheet, SheetEvent.Sort.TAKEN_BACK);
        }
    }

    private void happened(Sheet sheet, SheetEvent.Sort sort) {
        String name = Require.known(accounts.byId(List.of(sheet.raterId())), sheet.raterId())
                .displayName();
        entities.persist(SheetEvent.of(sheet.id(), sort, name, "", clock.instant()));
        rounds.findById(sheet.studyId()).orElseThrow().advance();
    }

    /** The round first, then the sheet, as with any change at the desk: one order, no deadlock. */
    private Sheet lockAlone(SheetId sheetId) {
        Round round = rounds.lock(frames.of(sheetId).studyId()).orElseThrow();
        round.refuseIfClosed();
        return sheets.lock(sheetId).orElseThrow();
    }

    private void refuseIfIncomplete(Sheet sheet) {
        SheetFrame frame = frames.of(sheet.id());
        RaterTerms.ReasonRule rule =
                studies.get(sheet.studyId()).brief().raters().reasons();
        List<SheetAnswer> onSheet = sheetAnswers.findBySheetIdInOrderByPlace(List.of(sheet.id()));
        List<SheetAnswerId> ids = onSheet.stream().map(SheetAnswer::id).toList();
        Map<Grade.Key, Grade> marks =
                grades.ofSheetAnswers(ids).stream().collect(Collectors.toMap(Grade::key, Function.identity()));
        List<SheetAnswerId> remarked = remarks.ofSheetAnswers(ids).stream()
                .filter(r -> r.content().filter(c -> !c.words().isBlank()).isPresent())
                .map(Remark::sheetAnswerId)
                .toList();
        List<Problem.FieldError> missing = new ArrayList<>();
        for (SheetAnswer answer : onSheet) {
            Function<CriterionView, Optional<Mark>> markOn =
                    criterion -> Optional.ofNullable(marks.get(new Grade.Key(answer.id(), criterion.id())))
                            .map(Grade::mark)
                            .filter(Mark::isMade);
            for (CriterionView criterion : frame.criteria()) {
                if (markOn.apply(criterion).isEmpty()) {
                    missing.add(new Problem.FieldError(
                            answer.id() + "/" + criterion.id(),
                            "Answer " + (answer.place() + 1) + " has no grade for " + criterion.name()));
                }
            }
            boolean needsReason = frame.criteria().stream()
                    .anyMatch(c ->
                            markOn.apply(c).filter(m -> needsReason(m, c, rule)).isPresent());
            if (needsReason && answer.reason().isBlank() && !remarked.contains(answer.id())) {
                missing.add(new Problem.FieldError(
                        answer.id() + "/reason", "Answer " + (answer.place() + 1) + " has no reason in words"));
            }
        }
        if (!missing.isEmpty()) {
            throw new Problem(
                            ProblemType.SHEET_INCOMPLETE,
                            missing.size() == 1 ? "One thing is missing." : missing.size() + " things are missing.")
                    .withErrors(missing);
        }
    }

    /** A scale of two levels has nothing but ends, so a level on it needs no reason of its own. */
    private static boolean needsReason(Mark mark, CriterionView criterion, RaterTerms.ReasonRule rule) {
        Integer level = mark.level();
        return rule == RaterTerms.ReasonRule.ALWAYS
                || level == null
                || criterion.levels().size() > 2 && (level == 0 || level == criterion.highestLevel());
    }
}
