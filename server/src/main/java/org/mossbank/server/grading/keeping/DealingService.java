package org.mossbank.server.grading.keeping;

import jakarta.persistence.EntityManager;
import jakarta.validation.constraints.NotNull;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.mossbank.server.acts.ActSort;
import org.mossbank.server.acts.Acts;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetAnswer;
import org.mossbank.server.grading.sheet.SheetCount;
import org.mossbank.server.grading.sheet.SheetRepository;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.Chunks;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.Studies;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Deals sheets to a rater while the round is open: to one who came in late, or for one who leaves. */
@Service
@Transactional
class DealingService {
    private final SheetRepository sheets;
    private final Grading grading;
    private final KeepingService keeping;
    private final HandedAnswers handed;
    private final Studies studies;
    private final Prompts prompts;
    private final Acts acts;
    private final EntityManager entities;

    DealingService(
            SheetRepository sheets,
            Grading grading,
            KeepingService keeping,
            HandedAnswers handed,
            Studies studies,
            Prompts prompts,
            Acts acts,
            EntityManager entities) {
        this.sheets = sheets;
        this.grading = grading;
        this.keeping = keeping;
        this.handed = handed;
        this.studies = studies;
        this.prompts = prompts;
        this.acts = acts;
        this.entities = entities;
    }

    /** Where the sheets come from. */
    enum From {
        /** Sheets that nobody has begun, evenly from those who have most. */
        UNBEGUN,
        /** A sheet for every prompt, beside those of the others. */
        IN_ADDITION
    }

    record DealSheets(@NotNull AccountId raterId, @NotNull From from) {}

    /**
     * @param sheets  how many the rater gets
     * @param loads   sheets that count, by rater, before and after
     * @param fewest  raters of the prompt that has fewest, afterwards
     * @param most    of the one that has most
     */
    record DealView(int sheets, List<Loads.LoadView> loads, int fewest, int most) {}

    /** Sheets as they would be: those taken over, and the prompts of new ones with a sheet to copy the answers of. */
    private record Deal(List<Sheet> counting, List<Sheet> over, List<Sheet> added) {
        int size() {
            return over.size() + added.size();
        }
    }

    @PreAuthorize("@studyAccess.mayLead(#study)")
    public DealView preview(StudyId study, DealSheets request) {
        grading.requireOpen(study);
        return view(drawn(study, request), request.raterId());
    }

    /**
     * @throws Problem 409 if the round is not open, the rater has not accepted, or there is nothing for them
     */
    @PreAuthorize("@studyAccess.mayLead(#study)")
    public DealView deal(StudyId study, DealSheets request) {
        grading.requireOpen(study);
        Deal deal = drawn(study, request);
        if (deal.size() == 0) {
            throw new Problem(
                    ProblemType.NOT_READY,
                    "There is no sheet for them: they have one for every prompt they may grade, or all are begun.");
        }
        DealView view = view(deal, request.raterId());
        if (sheets.findByStudyIdAndRaterIdOrderByPlace(study, request.raterId()).isEmpty()) {
            grading.comesIn(study, request.raterId());
        }
        deal.over()
                .forEach(s -> keeping.handOver(
                        study,
                        s.id(),
                        new KeepingService.HandOver(request.raterId(), "Dealt to somebody who came in late.")));
        int place = 1
                + sheets.findByStudyIdAndRaterIdOrderByPlace(study, request.raterId()).stream()
                        .mapToInt(Sheet::place)
                        .max()
                        .orElse(-1);
        for (Sheet like : deal.added()) {
            add(study, request.raterId(), like, place++);
        }
        acts.keep(study, ActSort.SHEETS_DEALT, "sheets: " + deal.size(), "");
        return view;
    }

    private void add(StudyId study, AccountId rater, Sheet like, int place) {
        Sheet fresh = Sheet.of(study, Grading.SheetRecord.blank(rater, like.promptId(), place, false));
        entities.persist(fresh);
        List<AnswerId> answers = handed.of(like, rater, fresh.id());
        for (int i = 0; i < answers.size(); i++) {
            entities.persist(SheetAnswer.of(fresh.id(), answers.get(i), i));
        }
    }

    private Deal drawn(StudyId study, DealSheets request) {
        AccountId rater = request.raterId();
        if (!studies.raters(study).contains(rater)) {
            throw Problem.invalid("raterId", "must be somebody who grades in this study");
        }
        if (studies.notAccepted(study).contains(rater)) {
            throw new Problem(ProblemType.NOT_READY, "They have not accepted yet.");
        }
        List<Sheet> all = sheets.findByStudyIdOrderByRaterIdAscPlaceAsc(study);
        Set<PromptId> sound = Set.copyOf(prompts.soundIds(study));
        List<Sheet> counting = all.stream()
                .filter(s -> !s.isWithdrawn() && !s.isRepeat() && sound.contains(s.promptId()))
                .toList();
        Set<PromptId> had = all.stream()
                .filter(s -> s.raterId().equals(rater))
                .map(Sheet::promptId)
                .collect(Collectors.toSet());
        Set<PromptId> open = prompts.sound(study).stream()
                .filter(p -> !had.contains(p.id()) && !rater.equals(p.authorId()))
                .map(PromptView::id)
                .collect(Collectors.toSet());
        return request.from() == From.UNBEGUN
                ? new Deal(counting, over(counting, open, rater), List.of())
                : new Deal(counting, List.of(), added(counting, open, rater));
    }

    /** From whoever has most that is not begun, until the one who gets them has as many; each rater's last sheets first. */
    private List<Sheet> over(List<Sheet> counting, Set<PromptId> open, AccountId rater) {
        List<Sheet> unsent = counting.stream().filter(s -> !s.isSent()).toList();
        Map<SheetId, Long> made =
                SheetCount.byId(Chunks.of(unsent.stream().map(Sheet::id).toList(), sheets::countMarks));
        Map<AccountId, List<Sheet>> left = unsent.stream()
                .filter(s -> made.getOrDefault(s.id(), 0L) == 0 && !s.raterId().equals(rater))
                .sorted(Comparator.comparingInt(Sheet::place).reversed())
                .collect(Collectors.groupingBy(Sheet::raterId, Collectors.toCollection(ArrayList::new)));
        List<Sheet> over = new ArrayList<>();
        Set<PromptId> free = new HashSet<>(open);
        // Whether they wrote all of a prompt's answers is asked once a prompt.
        Map<PromptId, Boolean> anyOfOthers = new HashMap<>();
        Predicate<Sheet> mayGo = s -> free.contains(s.promptId())
                && anyOfOthers.computeIfAbsent(
                        s.promptId(), p -> !handed.of(s, rater).isEmpty());
        while (true) {
            Optional<List<Sheet>> fullest = left.values().stream()
                    .filter(own -> own.size() > over.size() && own.stream().anyMatch(mayGo))
                    .max(Comparator.comparingInt(List::size));
            if (fullest.isEmpty()) {
                return over;
            }
            Sheet next = fullest.get().stream().filter(mayGo).findFirst().orElseThrow();
            fullest.get().remove(next);
            free.remove(next.promptId());
            over.add(next);
        }
    }

    /** One for each prompt, with the answers of the sheet that has most: whoever wrote some of them has fewer on theirs. */
    private List<Sheet> added(List<Sheet> counting, Set<PromptId> open, AccountId rater) {
        Map<SheetId, Long> answers =
                SheetCount.byId(Chunks.of(counting.stream().map(Sheet::id).toList(), sheets::countAnswers));
        Map<PromptId, Sheet> fullest = new HashMap<>();
        for (Sheet sheet : counting) {
            fullest.merge(
                    sheet.promptId(),
                    sheet,
                    (a, b) -> answers.getOrDefault(b.id(), 0L) > answers.getOrDefault(a.id(), 0L) ? b : a);
        }
        return fullest.values().stream()
                .filter(s -> open.contains(s.promptId()) && !handed.of(s, rater).isEmpty())
                // By id, which is random: an order of their own.
                .sorted(Comparator.comparing(s -> s.id().toString()))
                .toList();
    }

    private static DealView view(Deal deal, AccountId rater) {
        Loads loads = new Loads(deal.counting(), List.of(rater));
        deal.over().forEach(s -> loads.give(s, rater));
        deal.added().forEach(s -> loads.add(s.promptId(), rater));
        return new DealView(deal.size(), loads.views(), loads.fewest(), loads.most());
    }
}
