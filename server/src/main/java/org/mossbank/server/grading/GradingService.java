package org.mossbank.server.grading;

import java.time.Clock;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.grading.sheet.RoundRepository;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetCount;
import org.mossbank.server.grading.sheet.SheetEventRepository;
import org.mossbank.server.grading.sheet.SheetRepository;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.Studies;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What the lead sees and does while raters grade. */
@Service
@Transactional(readOnly = true)
class GradingService {
    private final RoundRepository rounds;
    private final SheetRepository sheets;
    private final SheetEventRepository events;
    private final ReminderRepository reminders;
    private final Grading grading;
    private final Studies studies;
    private final Prompts prompts;
    private final Rubrics rubrics;
    private final Accounts accounts;
    private final Clock clock;

    GradingService(
            RoundRepository rounds,
            SheetRepository sheets,
            SheetEventRepository events,
            ReminderRepository reminders,
            Grading grading,
            Studies studies,
            Prompts prompts,
            Rubrics rubrics,
            Accounts accounts,
            Clock clock) {
        this.rounds = rounds;
        this.sheets = sheets;
        this.events = events;
        this.reminders = reminders;
        this.grading = grading;
        this.studies = studies;
        this.prompts = prompts;
        this.rubrics = rubrics;
        this.accounts = accounts;
        this.clock = clock;
    }

    /** Counts alone, so that a lead who grades may follow it too. */
    @PreAuthorize("@studyAccess.mayLead(#study) or @studyAccess.maySeeAll(#study)")
    public GradingProgress progress(StudyId study) {
        List<Sheet> all = sheets.findByStudyIdOrderByRaterIdAscPlaceAsc(study);
        List<SheetId> ids = all.stream().map(Sheet::id).toList();
        Map<SheetId, Long> made = SheetCount.byId(sheets.countMarks(ids));
        Map<SheetId, Long> answers = SheetCount.byId(sheets.countAnswers(ids));
        Map<SheetId, Long> reasons = SheetCount.byId(sheets.countReasons(ids));
        Map<SheetId, Long> takenBack = SheetCount.byId(events.countTakenBack(ids));
        Map<AccountId, Instant> reminded = reminders.findByStudyIdOrderBySentAt(study).stream()
                .collect(Collectors.toMap(Reminder::raterId, Reminder::sentAt, (first, last) -> last));
        List<CriterionView> criteria = rubrics.ofStudy(study);
        Map<PromptId, Integer> criteriaByPrompt = prompts.ofStudy(study).stream()
                .collect(Collectors.toMap(PromptView::id, p -> (int) criteria.stream()
                        .filter(c -> c.appliesTo(p.kind().id()))
                        .count()));
        Map<AccountId, List<GradingProgress.SheetProgress>> byRater = all.stream()
                .collect(Collectors.groupingBy(
                        Sheet::raterId,
                        Collectors.mapping(
                                s -> new GradingProgress.SheetProgress(
                                        s.id(),
                                        s.promptId(),
                                        s.place() + 1,
                                        s.isRepeat(),
                                        answers.getOrDefault(s.id(), 0L),
                                        made.getOrDefault(s.id(), 0L),
                                        answers.getOrDefault(s.id(), 0L)
                                                * Require.known(criteriaByPrompt, s.promptId()),
                                        reasons.getOrDefault(s.id(), 0L),
                                        s.sentAt().orElse(null),
                                        takenBack.getOrDefault(s.id(), 0L),
                                        s.withdrawn() == null
                                                ? null
                                                : s.withdrawn().reason()),
                                Collectors.toList())));
        Optional<Grading.RoundState> round = grading.round(study);
        return new GradingProgress(
                round.map(Grading.RoundState::openedAt).orElse(null),
                round.map(Grading.RoundState::closedAt).orElse(null),
                accounts.byId(studies.raters(study)).values().stream()
                        .sorted(Comparator.comparing(AccountView::displayName))
                        .map(a -> new GradingProgress.RaterProgress(
                                a.id(),
                                a.displayName(),
                                a.signInName(),
                                a.hasPassword(),
                                reminded.get(a.id()),
                                byRater.getOrDefault(a.id(), List.of())))
                        .toList());
    }

    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public PromptGrades ofPrompt(StudyId study, PromptId prompt) {
        List<Grading.SheetRecord> sent = grading.sentRecords(study, prompt);
        Map<AccountId, AccountView> raters =
                accounts.byId(sent.stream().map(Grading.SheetRecord::raterId).toList());
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

    /** Ends grading for good: raters then see names, all grades and results. Closing twice is the same as once. */
    @PreAuthorize("@studyAccess.mayLead(#study)")
    @Transactional
    public void close(StudyId study) {
        rounds.lock(study)
                .orElseThrow(() -> new Problem(ProblemType.NOT_READY, "No round has been opened."))
                .close(clock.instant());
    }
}
