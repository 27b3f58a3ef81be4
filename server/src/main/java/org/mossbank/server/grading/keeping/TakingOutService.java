package org.mossbank.server.grading.keeping;

import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.mossbank.server.acts.ActSort;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.Withdraw;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetCount;
import org.mossbank.server.grading.sheet.SheetRepository;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.Chunks;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.Studies;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Takes a rater out of the open round: what they have sent in stays and counts; what they have not goes to the others, and is
 * withdrawn where none of them may have it.
 */
@Service
@Transactional
class TakingOutService {
    private final SheetRepository sheets;
    private final Grading grading;
    private final KeepingService keeping;
    private final HandedAnswers handed;
    private final SheetsOnRecord onRecord;
    private final Studies studies;
    private final Prompts prompts;

    TakingOutService(
            SheetRepository sheets,
            Grading grading,
            KeepingService keeping,
            HandedAnswers handed,
            SheetsOnRecord onRecord,
            Studies studies,
            Prompts prompts) {
        this.sheets = sheets;
        this.grading = grading;
        this.keeping = keeping;
        this.handed = handed;
        this.onRecord = onRecord;
        this.studies = studies;
        this.prompts = prompts;
    }

    record TakeOut(
            @NotNull AccountId raterId,
            @NotBlank @Size(max = 1000) String reason) {}

    record LookAtTakingOut(@NotNull AccountId raterId) {}

    /**
     * @param given     sheets that others get; what is graded on them is not taken along
     * @param withdrawn sheets that nobody else may have, and repeats
     * @param begun     of both, sheets on which something was graded
     * @param loads     sheets that count, by rater, before and after
     * @param fewest    raters of the prompt that has fewest, afterwards
     * @param most      of the one that has most
     */
    record TakenOutView(int given, int withdrawn, int begun, List<Loads.LoadView> loads, int fewest, int most) {}

    /** Open sheets, each with who would get it; nobody where it is withdrawn. */
    private record Parting(Map<Sheet, Optional<AccountId>> sheets, TakenOutView view) {}

    @PreAuthorize("@studyAccess.mayLead(#study)")
    public TakenOutView preview(StudyId study, LookAtTakingOut request) {
        grading.requireOpen(study);
        return parting(study, request.raterId()).view();
    }

    /** @throws Problem 409 if the round is not open, or they have nothing left to grade */
    @PreAuthorize("@studyAccess.mayLead(#study)")
    public TakenOutView takeOut(StudyId study, TakeOut request) {
        grading.requireOpen(study);
        Parting parting = parting(study, request.raterId());
        if (parting.sheets().isEmpty()) {
            throw new Problem(ProblemType.NOT_READY, "They have nothing left to grade.");
        }
        parting.sheets()
                .forEach((sheet, to) -> to.ifPresentOrElse(
                        rater -> keeping.handOver(
                                study, sheet.id(), new KeepingService.HandOver(rater, request.reason())),
                        () -> keeping.withdraw(study, sheet.id(), new Withdraw(request.reason()))));
        onRecord.keep(ActSort.RATER_TAKEN_OUT, study, request.raterId(), request.reason());
        return parting.view();
    }

    private Parting parting(StudyId study, AccountId rater) {
        if (!studies.raters(study).contains(rater)) {
            throw Problem.invalid("raterId", "must be somebody who grades in this study");
        }
        List<Sheet> all = sheets.findByStudyIdOrderByRaterIdAscPlaceAsc(study);
        Set<PromptId> sound = Set.copyOf(prompts.soundIds(study));
        List<Sheet> counting = all.stream()
                .filter(s -> !s.isWithdrawn() && !s.isRepeat() && sound.contains(s.promptId()))
                .toList();
        List<Sheet> open = all.stream()
                .filter(s -> s.raterId().equals(rater) && !s.isSent() && !s.isWithdrawn())
                .sorted(Comparator.comparingInt(Sheet::place))
                .toList();
        List<AccountId> asked = studies.notAccepted(study);
        List<AccountId> others = studies.raters(study).stream()
                .filter(r -> !r.equals(rater) && !asked.contains(r))
                .sorted(Comparator.comparing(AccountId::toString))
                .toList();
        Loads loads = new Loads(counting, studies.raters(study));
        Map<PromptId, Set<AccountId>> had = all.stream()
                .collect(Collectors.groupingBy(
                        Sheet::promptId, Collectors.mapping(Sheet::raterId, Collectors.toCollection(HashSet::new))));
        // In their order, so that each gets what the rater would have graded next.
        Map<Sheet, Optional<AccountId>> partings = new LinkedHashMap<>();
        for (Sheet sheet : open) {
            boolean goes = counting.contains(sheet);
            Optional<AccountId> to = goes ? next(sheet, others, had, loads) : Optional.empty();
            to.ifPresent(r -> {
                loads.give(sheet, r);
                had.computeIfAbsent(sheet.promptId(), p -> new HashSet<>()).add(r);
            });
            if (goes && to.isEmpty()) {
                loads.drop(sheet);
            }
            partings.put(sheet, to);
        }
        return new Parting(partings, view(partings, loads));
    }

    /** Whoever has fewest, of those who never had it and may grade it. */
    private Optional<AccountId> next(
            Sheet sheet, List<AccountId> others, Map<PromptId, Set<AccountId>> had, Loads loads) {
        AccountId author = prompts.one(sheet.promptId()).orElseThrow().authorId();
        return others.stream()
                .filter(r -> !r.equals(author)
                        && !had.getOrDefault(sheet.promptId(), Set.of()).contains(r)
                        && !handed.of(sheet, r).isEmpty())
                .min(Comparator.comparingInt(loads::now));
    }

    private TakenOutView view(Map<Sheet, Optional<AccountId>> partings, Loads loads) {
        int given = (int) partings.values().stream().filter(Optional::isPresent).count();
        Map<SheetId, Long> made = SheetCount.byId(
                Chunks.of(partings.keySet().stream().map(Sheet::id).toList(), sheets::countMarks));
        return new TakenOutView(
                given, partings.size() - given, made.size(), loads.views(), loads.fewest(), loads.most());
    }
}
