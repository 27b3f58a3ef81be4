package org.mossbank.server.grading;

import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.grading.reminding.Reminder;
import org.mossbank.server.grading.reminding.ReminderRepository;
import org.mossbank.server.grading.sheet.SheetCount;
import org.mossbank.server.grading.sheet.SheetEventRepository;
import org.mossbank.server.grading.sheet.SheetRepository;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyPeople;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** How far grading is, by rater. */
@Service
@Transactional(readOnly = true)
class GradingBoard {
    private final SheetRepository sheets;
    private final SheetEventRepository events;
    private final ReminderRepository reminders;
    private final Grading grading;
    private final Studies studies;
    private final Prompts prompts;
    private final Rubrics rubrics;
    private final StudyPeople people;

    GradingBoard(
            SheetRepository sheets,
            SheetEventRepository events,
            ReminderRepository reminders,
            Grading grading,
            Studies studies,
            Prompts prompts,
            Rubrics rubrics,
            StudyPeople people) {
        this.sheets = sheets;
        this.events = events;
        this.reminders = reminders;
        this.grading = grading;
        this.studies = studies;
        this.prompts = prompts;
        this.rubrics = rubrics;
        this.people = people;
    }

    /** Counts alone, so that a lead who grades may follow it too. */
    @PreAuthorize("@studyAccess.mayLead(#study) or @studyAccess.maySeeAll(#study)")
    public GradingProgress progress(StudyId study) {
        Map<AccountId, List<GradingProgress.SheetProgress>> byRater = sheetsByRater(study);
        Map<AccountId, Instant> reminded = reminders.findByStudyIdOrderBySentAt(study).stream()
                .collect(Collectors.toMap(Reminder::raterId, Reminder::sentAt, (first, last) -> last));
        Optional<Grading.RoundState> round = grading.round(study);
        Set<AccountId> hidden = people.hidden(study).keySet();
        return new GradingProgress(
                round.map(Grading.RoundState::openedAt).orElse(null),
                round.map(Grading.RoundState::closedAt).orElse(null),
                people.of(study, studies.raters(study)).values().stream()
                        .sorted(Comparator.comparing(AccountView::displayName))
                        .map(a -> new GradingProgress.RaterProgress(
                                a.id(),
                                a.displayName(),
                                hidden.contains(a.id()) ? "" : a.signInName(),
                                a.canSignIn(),
                                reminded.get(a.id()),
                                byRater.getOrDefault(a.id(), List.of())))
                        .toList());
    }

    private Map<AccountId, List<GradingProgress.SheetProgress>> sheetsByRater(StudyId study) {
        List<SheetRepository.OnBoard> all = sheets.onBoard(study);
        Map<SheetId, Long> made = SheetCount.byId(sheets.countMarksOnUnsent(study));
        Map<SheetId, SheetRepository.Held> held = sheets.heldBySheetsOf(study).stream()
                .collect(Collectors.toMap(SheetRepository.Held::id, Function.identity()));
        Map<SheetId, Long> takenBack = SheetCount.byId(events.countTakenBack(study));
        Map<PromptId, Integer> criteria = criteriaByPrompt(study);
        return all.stream()
                .collect(Collectors.groupingBy(
                        SheetRepository.OnBoard::raterId,
                        Collectors.mapping(
                                s -> sheet(
                                        s,
                                        held.getOrDefault(s.id(), new SheetRepository.Held(s.id(), 0, 0)),
                                        made.getOrDefault(s.id(), 0L),
                                        Require.known(criteria, s.promptId()),
                                        takenBack.getOrDefault(s.id(), 0L)),
                                Collectors.toList())));
    }

    private static GradingProgress.SheetProgress sheet(
            SheetRepository.OnBoard sheet, SheetRepository.Held held, long made, int criteria, long takenBack) {
        long marks = held.answers() * criteria;
        return new GradingProgress.SheetProgress(
                sheet.id(),
                sheet.promptId(),
                sheet.place() + 1,
                sheet.repeat(),
                sheet.rubricVersion() != null,
                held.answers(),
                sheet.sentAt() != null ? marks : made,
                marks,
                held.reasons(),
                sheet.sentAt(),
                takenBack,
                sheet.withdrawnReason());
    }

    private Map<PromptId, Integer> criteriaByPrompt(StudyId study) {
        List<CriterionView> criteria = rubrics.ofStudy(study);
        return prompts.outlines(study).stream().collect(Collectors.toMap(Prompts.Outline::id, p ->
                (int) criteria.stream().filter(c -> c.appliesTo(p.kindId())).count()));
    }
}
