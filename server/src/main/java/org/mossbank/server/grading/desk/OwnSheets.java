package org.mossbank.server.grading.desk;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.grading.sheet.RoundRepository;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetCount;
import org.mossbank.server.grading.sheet.SheetRepository;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.shared.Chunks;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyView;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The sheets of whoever asks. */
@Service
@Transactional(readOnly = true)
class OwnSheets {
    private final SheetRepository sheets;
    private final RoundRepository rounds;
    private final Studies studies;
    private final Prompts prompts;
    private final Rubrics rubrics;
    private final CurrentAccount current;

    OwnSheets(
            SheetRepository sheets,
            RoundRepository rounds,
            Studies studies,
            Prompts prompts,
            Rubrics rubrics,
            CurrentAccount current) {
        this.sheets = sheets;
        this.rounds = rounds;
        this.studies = studies;
        this.prompts = prompts;
        this.rubrics = rubrics;
        this.current = current;
    }

    /** The sheets of whoever asks, by study, in the order in which they come. */
    @PreAuthorize("isAuthenticated()")
    public List<SheetSummary> mine() {
        Map<StudyId, Boolean> accepted = new HashMap<>();
        List<Sheet> own = sheets.findByRaterIdOrderByStudyIdAscPlaceAsc(current.id()).stream()
                .filter(s -> accepted.computeIfAbsent(s.studyId(), study -> studies.hasAccepted(study, current.id())))
                .toList();
        List<SheetId> ids = own.stream().map(Sheet::id).toList();
        Map<SheetId, Long> made = SheetCount.byId(Chunks.of(ids, sheets::countMarks));
        Map<SheetId, Long> answerCounts = SheetCount.byId(Chunks.of(ids, sheets::countAnswers));
        Map<StudyId, List<Sheet>> byStudy = own.stream().collect(Collectors.groupingBy(Sheet::studyId));
        Map<StudyId, StudyView> studiesById = studies.byId(byStudy.keySet());
        List<SheetSummary> result = new ArrayList<>();
        byStudy.forEach((study, ofStudy) -> {
            Map<PromptId, PromptView> promptsById = promptsById(study);
            List<CriterionView> criteria = rubrics.ofStudy(study);
            boolean closed = rounds.findById(study).orElseThrow().isClosed();
            Set<PromptId> sound = promptsById.values().stream()
                    .filter(p -> !p.isFaulty())
                    .map(PromptView::id)
                    .collect(Collectors.toSet());
            for (Sheet sheet : closed ? ofStudy : Repeats.told(ofStudy, sound)) {
                PromptView prompt = Require.known(promptsById, sheet.promptId());
                result.add(new SheetSummary(
                        sheet.id(),
                        study,
                        Require.known(studiesById, study).title(),
                        prompt.title(),
                        prompt.kind().name(),
                        sheet.place() + 1,
                        prompt.calibration(),
                        made.getOrDefault(sheet.id(), 0L),
                        answerCounts.getOrDefault(sheet.id(), 0L)
                                * DeskService.applicable(criteria, prompt).size(),
                        sheet.sentAt().orElse(null),
                        closed,
                        prompt.isFaulty(),
                        sheet.isWithdrawn()));
            }
        });
        result.sort(Comparator.comparing((SheetSummary s) ->
                        Require.known(studiesById, s.studyId()).createdAt())
                .reversed()
                .thenComparing(SheetSummary::place));
        return result;
    }

    private Map<PromptId, PromptView> promptsById(StudyId study) {
        return prompts.ofStudy(study).stream().collect(Collectors.toMap(PromptView::id, Function.identity()));
    }
}
