package org.mossbank.server.grading;

import jakarta.persistence.EntityManager;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.grading.sheet.RoundRepository;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetAnswer;
import org.mossbank.server.grading.sheet.SheetAnswerRepository;
import org.mossbank.server.grading.sheet.SheetEvent;
import org.mossbank.server.grading.sheet.SheetRepository;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
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
    private final RoundRepository rounds;
    private final SheetRepository sheets;
    private final SheetAnswerRepository sheetAnswers;
    private final Studies studies;
    private final Prompts prompts;
    private final Answers answers;
    private final Candidates candidates;
    private final Accounts accounts;
    private final CurrentAccount current;
    private final EntityManager entities;
    private final Clock clock;

    KeepingService(
            RoundRepository rounds,
            SheetRepository sheets,
            SheetAnswerRepository sheetAnswers,
            Studies studies,
            Prompts prompts,
            Answers answers,
            Candidates candidates,
            Accounts accounts,
            CurrentAccount current,
            EntityManager entities,
            Clock clock) {
        this.rounds = rounds;
        this.sheets = sheets;
        this.sheetAnswers = sheetAnswers;
        this.studies = studies;
        this.prompts = prompts;
        this.answers = answers;
        this.candidates = candidates;
        this.accounts = accounts;
        this.current = current;
        this.entities = entities;
        this.clock = clock;
    }

    record HandOver(
            @NotNull AccountId raterId,
            @NotBlank @Size(max = 1000) String reason) {}

    /** The grades on it stay and count nowhere. Withdrawing twice is the same as once. */
    @PreAuthorize("@studyAccess.mayLead(#study)")
    public void withdraw(StudyId study, SheetId sheetId, Withdraw request) {
        Sheet sheet = lock(study, sheetId);
        withdraw(sheet, request.reason(), SheetEvent.Sort.WITHDRAWN);
    }

    private void withdraw(Sheet sheet, String reason, SheetEvent.Sort sort) {
        if (!sheet.isWithdrawn()) {
            sheet.withdraw(reason, clock.instant());
            happened(sheet, sort, reason);
        }
    }

    /** To the rater it was withdrawn from, with the grades as they were. */
    @PreAuthorize("@studyAccess.mayLead(#study)")
    public void giveBack(StudyId study, SheetId sheetId) {
        Sheet sheet = lock(study, sheetId);
        if (sheet.isWithdrawn()) {
            sheet.giveBack();
            happened(sheet, SheetEvent.Sort.GIVEN_BACK, "");
        }
    }

    /**
     * Withdraws a sheet and lays an empty one with the same answers before another rater, in an order of its own.
     *
     * @throws Problem 400 if that person does not grade in this study, wrote the prompt, or has a sheet for it
     */
    @PreAuthorize("@studyAccess.mayLead(#study)")
    public void handOver(StudyId study, SheetId sheetId, HandOver request) {
        Sheet sheet = lock(study, sheetId);
        if (sheet.isRepeat()) {
            throw Problem.invalid("sheetId", "must not be a repeat: it shows whether its rater agrees with themselves");
        }
        if (sheet.isSent()) {
            throw new Problem(
                    ProblemType.SHEET_SENT, "This sheet is sent in. Withdraw it first if it shall not count.");
        }
        List<Sheet> theirs = sheets.findByStudyIdAndRaterIdOrderByPlace(study, request.raterId());
        requireMayTake(sheet, request.raterId(), theirs);
        List<AnswerId> onSheet = answersFor(sheet, request.raterId());
        if (onSheet.isEmpty()) {
            throw Problem.invalid("raterId", "must be somebody who did not write all of these answers");
        }
        withdraw(sheet, request.reason(), SheetEvent.Sort.TAKEN_OVER);
        int place = 1 + theirs.stream().mapToInt(Sheet::place).max().orElse(-1);
        Sheet fresh = Sheet.of(
                study,
                new Grading.SheetRecord(request.raterId(), sheet.promptId(), place, false, null, null, List.of()));
        entities.persist(fresh);
        for (int i = 0; i < onSheet.size(); i++) {
            entities.persist(SheetAnswer.of(fresh.id(), onSheet.get(i), i));
        }
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

    /** Without the rater's own; shuffled by the study's seed and the sheet, so that it can be told again. */
    private List<AnswerId> answersFor(Sheet sheet, AccountId rater) {
        Map<AnswerId, AnswerView> byId = answers.ofStudy(sheet.studyId()).stream()
                .collect(Collectors.toMap(AnswerView::id, Function.identity()));
        List<CandidateId> own = candidates.ofStudy(sheet.studyId()).stream()
                .filter(c -> rater.equals(c.content().personId()))
                .map(CandidateView::id)
                .toList();
        List<AnswerId> onSheet = new ArrayList<>(sheetAnswers.findBySheetIdInOrderByPlace(List.of(sheet.id())).stream()
                .map(SheetAnswer::answerId)
                .filter(id -> !own.contains(Require.known(byId, id).candidateId()))
                .sorted()
                .toList());
        long seed = studies.get(sheet.studyId()).seed() ^ sheet.id().value().getLeastSignificantBits();
        Collections.shuffle(onSheet, new Random(seed));
        return onSheet;
    }

    private void happened(Sheet sheet, SheetEvent.Sort sort, String note) {
        String by = Require.known(accounts.byId(List.of(current.id())), current.id())
                .displayName();
        entities.persist(SheetEvent.of(sheet.id(), sort, by, note, clock.instant()));
        rounds.findById(sheet.studyId()).orElseThrow().advance();
    }

    private Sheet lock(StudyId study, SheetId sheetId) {
        rounds.lock(study).orElseThrow(() -> Problem.notFound("This round")).refuseIfClosed();
        return sheets.lock(sheetId)
                .filter(s -> s.studyId().equals(study))
                .orElseThrow(() -> Problem.notFound("This sheet"));
    }
}
