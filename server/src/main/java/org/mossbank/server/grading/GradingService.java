package org.mossbank.server.grading;

import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Clock;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.acts.ActSort;
import org.mossbank.server.acts.Acts;
import org.mossbank.server.grading.sheet.Round;
import org.mossbank.server.grading.sheet.RoundRepository;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.StudyPeople;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** What the lead sees and does while raters grade. */
@Service
@Transactional(readOnly = true)
class GradingService {
    private final RoundRepository rounds;
    private final Grading grading;
    private final StudyPeople people;
    private final Acts acts;
    private final ApplicationEventPublisher events;
    private final Clock clock;

    GradingService(
            RoundRepository rounds,
            Grading grading,
            StudyPeople people,
            Acts acts,
            ApplicationEventPublisher events,
            Clock clock) {
        this.acts = acts;
        this.events = events;
        this.rounds = rounds;
        this.grading = grading;
        this.people = people;
        this.clock = clock;
    }

    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public PromptGrades ofPrompt(StudyId study, PromptId prompt) {
        List<Grading.SheetRecord> sent = grading.sentRecords(study, prompt);
        Map<AccountId, AccountView> raters =
                people.of(study, sent.stream().map(Grading.SheetRecord::raterId).toList());
        return new PromptGrades(sent.stream()
                .map(s -> new PromptGrades.RaterGrades(
                        s.raterId(),
                        Require.known(raters, s.raterId()).displayName(),
                        s.answers().stream().map(GradingService::grades).toList()))
                .sorted(Comparator.comparing(PromptGrades.RaterGrades::name))
                .toList());
    }

    private static PromptGrades.AnswerGrades grades(Grading.AnswerRecord answer) {
        return new PromptGrades.AnswerGrades(
                answer.answerId(),
                answer.place() + 1,
                answer.reason(),
                answer.judgement().works(),
                answer.judgement().worksWhy(),
                answer.judgement().preference(),
                answer.coverage().entrySet().stream()
                        .map(e -> new PromptGrades.PointVerdict(e.getKey(), e.getValue()))
                        .toList(),
                answer.remarks(),
                answer.marks().entrySet().stream()
                        .map(e -> new PromptGrades.CriterionGrade(
                                e.getKey(),
                                e.getValue().level(),
                                e.getValue().notApplicable(),
                                e.getValue().confidence()))
                        .toList());
    }

    /** @param reason why now; asked while sheets are out */
    record CloseRound(@NotNull @Size(max = 2000) String reason) {}

    /**
     * Ends grading: raters then see names, all grades and results. Closing twice is the same as once.
     *
     * @throws Problem 400 if sheets are out and no reason is given
     */
    @PreAuthorize("@studyAccess.mayLead(#study)")
    @Transactional
    public void close(StudyId study, CloseRound request) {
        Round round = locked(study);
        if (round.isClosed()) {
            return;
        }
        Grading.SheetTotals totals = grading.totals(study);
        int out = totals.sheets() - totals.sent();
        if (out > 0 && request.reason().isBlank()) {
            throw Problem.invalid("reason", "must say why grading ends with %d sheets not sent in".formatted(out));
        }
        round.close(clock.instant());
        acts.keep(
                study,
                ActSort.ROUND_CLOSED,
                "%d of %d sheets sent in".formatted(totals.sent(), totals.sheets()),
                request.reason());
    }

    /** Tells that grading has ended, once that is kept. Whoever works out what came of it is waited for, without a connection. */
    @PreAuthorize("@studyAccess.mayLead(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public void tellOfEnd(StudyId study) {
        events.publishEvent(new RoundClosed(study));
    }

    record ReopenRound(@NotBlank @Size(max = 2000) String reason) {}

    /** Lets raters grade on, who have seen names and results meanwhile: that stays on record. */
    @PreAuthorize("@studyAccess.mayLead(#study)")
    @Transactional
    public void reopen(StudyId study, ReopenRound request) {
        Round round = locked(study);
        if (round.isClosed()) {
            round.reopen();
            acts.keep(study, ActSort.ROUND_REOPENED, "", request.reason());
        }
    }

    private Round locked(StudyId study) {
        return rounds.lock(study)
                .filter(Round::isOpened)
                .orElseThrow(() -> new Problem(ProblemType.NOT_READY, "No round has been opened."));
    }
}
