package org.mossbank.server.grading.desk;

import java.util.List;
import java.util.Optional;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.ProposedWorks;
import org.mossbank.server.grading.sheet.RoundRepository;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.prompt.PromptContent;
import org.mossbank.server.prompt.PromptView;
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
    private final RoundRepository rounds;
    private final GuessChoices guesses;
    private final Studies studies;
    private final Rubrics rubrics;
    private final OpenedSheets opened;
    private final AnswersOnSheet answers;
    private final ProposedWorks proposed;

    DeskService(
            RoundRepository rounds,
            GuessChoices guesses,
            Studies studies,
            Rubrics rubrics,
            OpenedSheets opened,
            AnswersOnSheet answers,
            ProposedWorks proposed) {
        this.rounds = rounds;
        this.guesses = guesses;
        this.studies = studies;
        this.rubrics = rubrics;
        this.opened = opened;
        this.answers = answers;
        this.proposed = proposed;
    }

    /** The criteria on which answers to this prompt are graded. */
    static List<CriterionView> applicable(List<CriterionView> criteria, KindId kind) {
        return criteria.stream().filter(c -> c.appliesTo(kind)).toList();
    }

    /** @throws Problem 409 if the rater must first say what they expect; nothing is shown before */
    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    public SheetView sheet(SheetId sheetId) {
        Sheet sheet = opened.sheet(sheetId);
        PromptView prompt = opened.promptOf(sheet);
        StudyView study = studies.get(sheet.studyId());
        List<CriterionView> criteria = applicable(
                rubrics.by(sheet.studyId(), sheet.rubricVersion().orElse(null)),
                prompt.kind().id());
        RaterTerms terms = study.brief().raters();
        boolean asksGuess = sheet.isSent() && terms.asksSourceGuess();
        Grading.Withdrawn withdrawn = sheet.withdrawn();
        return new SheetView(
                sheet.id(),
                sheet.studyId(),
                study.title(),
                sheet.place() + 1,
                opened.ofSheets(sheet),
                prompt.calibration(),
                sheet.isSent(),
                rounds.findById(sheet.studyId()).orElseThrow().isClosed(),
                prompt.isFaulty(),
                withdrawn == null ? null : withdrawn.reason(),
                terms.reasons(),
                terms.asksSourceGuess()
                        || terms.showsReference()
                                && !prompt.content().referenceAnswer().isBlank(),
                proposed.areShown(sheet.studyId(), prompt.id()),
                onSheet(prompt, terms.showsReference() && opened.mayShowReference(sheet)),
                criteria.stream()
                        .map(c -> onSheet(
                                c,
                                prompt.kind().id(),
                                spokenFor(criteria, study).filter(c::equals).isPresent()))
                        .toList(),
                answers.of(sheet, criteria, asksGuess),
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

    /** The criterion for whose level key points and trials speak. */
    static Optional<CriterionView> spokenFor(List<CriterionView> criteria, StudyView study) {
        RuleTerms.GateTerms gate = study.brief().rule().gate();
        return CriterionView.spokenFor(criteria, gate == null ? null : gate.criterion());
    }

    private static SheetView.CriterionOnSheet onSheet(CriterionView criterion, KindId kind, boolean fromKeyPoints) {
        return new SheetView.CriterionOnSheet(
                criterion.id(),
                criterion.name(),
                criterion.question(),
                criterion.levels().stream()
                        .map(level -> new SheetView.LevelOnSheet(
                                level.level(),
                                level.name(),
                                level.anchorFor(kind).orElse(null)))
                        .toList(),
                criterion.traits(),
                fromKeyPoints);
    }
}
