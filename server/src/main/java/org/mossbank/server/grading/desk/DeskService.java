package org.mossbank.server.grading.desk;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.markdown.FencedBlock;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.answer.AnswerText;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.sheet.Coverage;
import org.mossbank.server.grading.sheet.CoverageRepository;
import org.mossbank.server.grading.sheet.Grade;
import org.mossbank.server.grading.sheet.GradeRepository;
import org.mossbank.server.grading.sheet.Remark;
import org.mossbank.server.grading.sheet.RemarkRepository;
import org.mossbank.server.grading.sheet.RoundRepository;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetAnswer;
import org.mossbank.server.grading.sheet.SheetAnswerRepository;
import org.mossbank.server.grading.sheet.SheetCount;
import org.mossbank.server.grading.sheet.SheetRepository;
import org.mossbank.server.masking.Masking;
import org.mossbank.server.prompt.PromptContent;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.study.RaterTerms;
import org.mossbank.server.study.RuleTerms;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyView;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What a rater reads at the desk. */
@Service
@Transactional(readOnly = true)
class DeskService {
    /** As the rubric that a study starts from calls it. */
    private static final String CORRECTNESS = "correctness";

    private final RoundRepository rounds;
    private final SheetRepository sheets;
    private final SheetAnswerRepository sheetAnswers;
    private final GradeRepository grades;
    private final CoverageRepository coverages;
    private final RemarkRepository remarks;
    private final GuessChoices guesses;
    private final Studies studies;
    private final Prompts prompts;
    private final Masking masking;
    private final Rubrics rubrics;
    private final CurrentAccount current;
    private final OpenedSheets opened;

    DeskService(
            RoundRepository rounds,
            SheetRepository sheets,
            SheetAnswerRepository sheetAnswers,
            GradeRepository grades,
            CoverageRepository coverages,
            RemarkRepository remarks,
            GuessChoices guesses,
            Studies studies,
            Prompts prompts,
            Masking masking,
            Rubrics rubrics,
            CurrentAccount current,
            OpenedSheets opened) {
        this.rounds = rounds;
        this.sheets = sheets;
        this.sheetAnswers = sheetAnswers;
        this.grades = grades;
        this.coverages = coverages;
        this.remarks = remarks;
        this.guesses = guesses;
        this.studies = studies;
        this.prompts = prompts;
        this.masking = masking;
        this.rubrics = rubrics;
        this.current = current;
        this.opened = opened;
    }

    /** The sheets of whoever asks, by study, in the order in which they come. */
    @PreAuthorize("isAuthenticated()")
    public List<SheetSummary> mine() {
        Map<UUID, Boolean> accepted = new HashMap<>();
        List<Sheet> own = sheets.findByRaterIdOrderByStudyIdAscPlaceAsc(current.id()).stream()
                .filter(s -> accepted.computeIfAbsent(s.studyId(), study -> studies.hasAccepted(study, current.id())))
                .toList();
        List<UUID> ids = own.stream().map(Sheet::id).toList();
        Map<UUID, Long> made = SheetCount.byId(sheets.countMarks(ids));
        Map<UUID, Long> answerCounts = SheetCount.byId(sheets.countAnswers(ids));
        Map<UUID, List<Sheet>> byStudy = own.stream().collect(Collectors.groupingBy(Sheet::studyId));
        Map<UUID, StudyView> studiesById = studies.byId(byStudy.keySet());
        List<SheetSummary> result = new ArrayList<>();
        byStudy.forEach((study, ofStudy) -> {
            Map<UUID, PromptView> promptsById = promptsById(study);
            List<CriterionView> criteria = rubrics.ofStudy(study);
            boolean closed = rounds.findById(study).orElseThrow().isClosed();
            for (Sheet sheet : ofStudy) {
                PromptView prompt = Require.known(promptsById, sheet.promptId());
                result.add(new SheetSummary(
                        sheet.id(),
                        study,
                        Require.known(studiesById, study).title(),
                        prompt.title(),
                        prompt.kind().name(),
                        sheet.place() + 1,
                        made.getOrDefault(sheet.id(), 0L),
                        answerCounts.getOrDefault(sheet.id(), 0L)
                                * applicable(criteria, prompt).size(),
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

    /** The criteria on which answers to this prompt are graded. */
    static List<CriterionView> applicable(List<CriterionView> criteria, PromptView prompt) {
        return criteria.stream().filter(c -> c.appliesTo(prompt.kind().id())).toList();
    }

    private Map<UUID, PromptView> promptsById(UUID study) {
        return prompts.ofStudy(study).stream().collect(Collectors.toMap(PromptView::id, Function.identity()));
    }

    /** @throws Problem 409 if the rater must first say what they expect; nothing is shown before */
    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    public SheetView sheet(UUID sheetId) {
        Sheet sheet = opened.sheet(sheetId);
        PromptView prompt = opened.promptOf(sheet);
        StudyView study = studies.get(sheet.studyId());
        List<CriterionView> criteria = applicable(rubrics.ofStudy(sheet.studyId()), prompt);
        RaterTerms terms = study.brief().raters();
        boolean asksGuess = sheet.isSent() && terms.asksSourceGuess();
        Grading.Withdrawn withdrawn = sheet.withdrawn();
        return new SheetView(
                sheet.id(),
                sheet.studyId(),
                study.title(),
                sheet.place() + 1,
                sheets.findByStudyIdAndRaterIdOrderByPlace(sheet.studyId(), sheet.raterId())
                        .size(),
                sheet.isSent(),
                rounds.findById(sheet.studyId()).orElseThrow().isClosed(),
                prompt.isFaulty(),
                withdrawn == null ? null : withdrawn.reason(),
                terms.reasons(),
                terms.asksSourceGuess()
                        || terms.showsReference()
                                && !prompt.content().referenceAnswer().isBlank(),
                onSheet(prompt, sheet.isSent() && terms.showsReference()),
                criteria.stream()
                        .map(c -> onSheet(c, prompt.kind().id(), c.key().equals(spokenFor(criteria, study))))
                        .toList(),
                answersOf(sheet, criteria, asksGuess),
                asksGuess ? guesses.names(sheet.studyId()) : null);
    }

    private static SheetView.PromptOnSheet onSheet(PromptView prompt, boolean withReference) {
        PromptContent content = prompt.content();
        return new SheetView.PromptOnSheet(
                prompt.title(),
                prompt.kind().name(),
                content.language(),
                content.request(),
                content.constraints(),
                content.startingFiles(),
                content.keyPoints(),
                withReference && !content.referenceAnswer().isBlank() ? content.referenceAnswer() : null);
    }

    /** The key of the criterion for whose level key points speak; empty if there is none. */
    private static String spokenFor(List<CriterionView> criteria, StudyView study) {
        RuleTerms.GateTerms gate = study.brief().rule().gate();
        return criteria.stream().anyMatch(c -> c.key().equals(CORRECTNESS))
                ? CORRECTNESS
                : gate == null ? "" : gate.criterion();
    }

    private static SheetView.CriterionOnSheet onSheet(CriterionView criterion, UUID kind, boolean fromKeyPoints) {
        return new SheetView.CriterionOnSheet(
                criterion.id(),
                criterion.name(),
                criterion.question(),
                criterion.levels().stream()
                        .map(level -> new SheetView.LevelOnSheet(
                                level.level(),
                                level.name(),
                                level.anchors().stream()
                                        .filter(a -> a.kindId().equals(kind))
                                        .map(CriterionView.AnchorView::text)
                                        .findFirst()
                                        .orElse(null)))
                        .toList(),
                criterion.traits(),
                fromKeyPoints);
    }

    private List<SheetView.AnswerOnSheet> answersOf(Sheet sheet, List<CriterionView> criteria, boolean asksGuess) {
        List<SheetAnswer> onSheet = sheetAnswers.findBySheetIdInOrderByPlace(List.of(sheet.id()));
        List<UUID> ids = onSheet.stream().map(SheetAnswer::id).toList();
        Map<UUID, AnswerText> texts =
                masking.forRaters(onSheet.stream().map(SheetAnswer::answerId).toList());
        Map<Grade.Key, Grade> marks =
                grades.ofSheetAnswers(ids).stream().collect(Collectors.toMap(Grade::key, Function.identity()));
        Map<UUID, List<Coverage>> covered = coverages.ofSheetAnswers(ids).stream()
                .collect(Collectors.groupingBy(c -> c.key().sheetAnswerId()));
        Map<UUID, List<Remark>> remarked =
                remarks.ofSheetAnswers(ids).stream().collect(Collectors.groupingBy(Remark::sheetAnswerId));
        List<UUID> choices = asksGuess ? guesses.candidates(sheet.studyId()) : List.of();
        return onSheet.stream()
                .map(a -> new SheetView.AnswerOnSheet(
                        a.id(),
                        a.place() + 1,
                        Require.known(texts, a.answerId()).outcome(),
                        Require.known(texts, a.answerId()).text(),
                        hasCode(Require.known(texts, a.answerId()).text()),
                        a.reason(),
                        a.reasonRevision(),
                        a.worksOnSheet(),
                        a.preferenceOnSheet(),
                        criteria.stream()
                                .map(c -> new Grade.Key(a.id(), c.id()))
                                .map(key ->
                                        marks.getOrDefault(key, Grade.of(key)).state())
                                .toList(),
                        covered.getOrDefault(a.id(), List.of()).stream()
                                .map(Coverage::state)
                                .toList(),
                        remarked.getOrDefault(a.id(), List.of()).stream()
                                .map(Remark::state)
                                .toList(),
                        asksGuess ? a.guessOnSheet(choices) : null))
                .toList();
    }

    static boolean hasCode(String text) {
        return FencedBlock.in(text).stream().anyMatch(b -> !b.content().isBlank());
    }
}
