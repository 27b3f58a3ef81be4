package org.mossbank.server.grading.keeping;

import jakarta.persistence.EntityManager;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.mossbank.server.account.Actor;
import org.mossbank.server.acts.ActSort;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.Withdraw;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetAnswer;
import org.mossbank.server.grading.sheet.SheetEvent;
import org.mossbank.server.grading.sheet.SheetHistory;
import org.mossbank.server.grading.sheet.SheetRepository;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.Studies;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What a lead does with single sheets: withdraw one, give it back, hand it over to somebody else. */
@Service
@Transactional
class KeepingService {
    private final SheetRepository sheets;
    private final Studies studies;
    private final Prompts prompts;
    private final EntityManager entities;
    private final SheetHistory history;
    private final HandedAnswers handed;
    private final SheetsOnRecord onRecord;
    private final Actor actor;

    KeepingService(
            SheetRepository sheets,
            Studies studies,
            Prompts prompts,
            EntityManager entities,
            SheetHistory history,
            HandedAnswers handed,
            SheetsOnRecord onRecord,
            Actor actor) {
        this.onRecord = onRecord;
        this.actor = actor;
        this.handed = handed;
        this.history = history;
        this.sheets = sheets;
        this.studies = studies;
        this.prompts = prompts;
        this.entities = entities;
    }

    record HandOver(
            @NotNull AccountId raterId,
            @NotBlank @Size(max = 1000) String reason) {}

    /** The grades on it stay and count nowhere. Withdrawing twice is the same as once. */
    @PreAuthorize("@studyAccess.mayLead(#study)")
    public void withdraw(StudyId study, SheetId sheetId, Withdraw request) {
        Sheet sheet = history.lock(study, sheetId);
        if (withdraw(sheet, request.reason(), SheetEvent.Sort.WITHDRAWN)) {
            onRecord.keep(ActSort.SHEET_WITHDRAWN, sheet, request.reason());
        }
    }

    private boolean withdraw(Sheet sheet, String reason, SheetEvent.Sort sort) {
        if (sheet.isWithdrawn()) {
            return false;
        }
        sheet.withdraw(reason, actor.now());
        history.happened(sheet, sort, reason);
        return true;
    }

    record GiveBack(@NotBlank @Size(max = 1000) String reason) {}

    /** To the rater it was withdrawn from, with the grades as they were. */
    @PreAuthorize("@studyAccess.mayLead(#study)")
    public void giveBack(StudyId study, SheetId sheetId, GiveBack request) {
        Sheet sheet = history.lock(study, sheetId);
        if (sheet.isWithdrawn()) {
            sheet.giveBack();
            history.happened(sheet, SheetEvent.Sort.GIVEN_BACK, request.reason());
            onRecord.keep(ActSort.SHEET_GIVEN_BACK, sheet, request.reason());
        }
    }

    /**
     * Withdraws a sheet and lays an empty one with the same answers before another rater, in an order of its own.
     *
     * @throws Problem 400 if that person does not grade in this study, wrote the prompt, or has a sheet for it
     */
    @PreAuthorize("@studyAccess.mayLead(#study)")
    public void handOver(StudyId study, SheetId sheetId, HandOver request) {
        Sheet sheet = history.lock(study, sheetId);
        if (sheet.isRepeat()) {
            throw Problem.invalid("sheetId", "must not be a repeat: it shows whether its rater agrees with themselves");
        }
        if (sheet.rubricVersion().isPresent()) {
            throw Problem.invalid("sheetId", "must not be one to calibrate by: each rater has their own");
        }
        if (sheet.isSent()) {
            throw new Problem(
                    ProblemType.SHEET_SENT, "This sheet is sent in. Withdraw it first if it shall not count.");
        }
        List<Sheet> theirs = sheets.findByStudyIdAndRaterIdOrderByPlace(study, request.raterId());
        requireMayTake(sheet, request.raterId(), theirs);
        List<AnswerId> onSheet = handed.of(sheet, request.raterId());
        if (onSheet.isEmpty()) {
            throw Problem.invalid("raterId", "must be somebody who did not write all of these answers");
        }
        withdraw(sheet, request.reason(), SheetEvent.Sort.TAKEN_OVER);
        int place = 1 + theirs.stream().mapToInt(Sheet::place).max().orElse(-1);
        Sheet fresh = Sheet.of(study, Grading.SheetRecord.blank(request.raterId(), sheet.promptId(), place, false));
        entities.persist(fresh);
        for (int i = 0; i < onSheet.size(); i++) {
            entities.persist(SheetAnswer.of(fresh.id(), onSheet.get(i), i));
        }
        onRecord.handedOver(sheet, request.raterId(), request.reason());
    }

    private void requireMayTake(Sheet sheet, AccountId rater, List<Sheet> theirs) {
        if (!studies.raters(sheet.studyId()).contains(rater)) {
            throw Problem.invalid("raterId", "must be somebody who grades in this study");
        }
        if (theirs.stream().anyMatch(s -> s.promptId().equals(sheet.promptId()))) {
            throw Problem.invalid("raterId", "must be somebody without a sheet for this prompt");
        }
        PromptView prompt = prompts.one(sheet.studyId(), sheet.promptId()).orElseThrow();
        if (rater.equals(prompt.authorId())) {
            throw Problem.invalid("raterId", "must be somebody who did not write the prompt");
        }
    }
}
