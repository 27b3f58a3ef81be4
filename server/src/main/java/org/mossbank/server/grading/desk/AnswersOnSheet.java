package org.mossbank.server.grading.desk;

import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.markdown.FencedBlock;
import org.mossbank.server.answer.AnswerText;
import org.mossbank.server.grading.sheet.Coverage;
import org.mossbank.server.grading.sheet.CoverageRepository;
import org.mossbank.server.grading.sheet.Grade;
import org.mossbank.server.grading.sheet.GradeRepository;
import org.mossbank.server.grading.sheet.Remark;
import org.mossbank.server.grading.sheet.RemarkRepository;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetAnswer;
import org.mossbank.server.grading.sheet.SheetAnswerRepository;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.masking.Masking;
import org.mossbank.server.rubric.CriterionView;
import org.springframework.stereotype.Component;

/** The answers of a sheet as raters read them, with what was said of each. */
@Component
class AnswersOnSheet {
    private final SheetAnswerRepository sheetAnswers;
    private final GradeRepository grades;
    private final CoverageRepository coverages;
    private final RemarkRepository remarks;
    private final GuessChoices guesses;
    private final Masking masking;

    AnswersOnSheet(
            SheetAnswerRepository sheetAnswers,
            GradeRepository grades,
            CoverageRepository coverages,
            RemarkRepository remarks,
            GuessChoices guesses,
            Masking masking) {
        this.sheetAnswers = sheetAnswers;
        this.grades = grades;
        this.coverages = coverages;
        this.remarks = remarks;
        this.guesses = guesses;
        this.masking = masking;
    }

    List<SheetView.AnswerOnSheet> of(Sheet sheet, List<CriterionView> criteria, boolean asksGuess) {
        List<SheetAnswer> onSheet = sheetAnswers.findBySheetIdInOrderByPlace(List.of(sheet.id()));
        List<SheetAnswerId> ids = onSheet.stream().map(SheetAnswer::id).toList();
        Map<AnswerId, AnswerText> texts =
                masking.forRaters(onSheet.stream().map(SheetAnswer::answerId).toList());
        Map<Grade.Key, Grade> marks =
                grades.ofSheetAnswers(ids).stream().collect(Collectors.toMap(Grade::key, Function.identity()));
        Map<SheetAnswerId, List<Coverage>> covered = coverages.ofSheetAnswers(ids).stream()
                .collect(Collectors.groupingBy(c -> c.key().sheetAnswerId()));
        Map<SheetAnswerId, List<Remark>> remarked =
                remarks.ofSheetAnswers(ids).stream().collect(Collectors.groupingBy(Remark::sheetAnswerId));
        List<CandidateId> choices = asksGuess ? guesses.candidates(sheet.studyId()) : List.of();
        return onSheet.stream()
                .map(a -> new SheetView.AnswerOnSheet(
                        a.id(),
                        a.place() + 1,
                        Require.known(texts, a.answerId()).outcome(),
                        Require.known(texts, a.answerId()).text(),
                        FencedBlock.isCodeIn(Require.known(texts, a.answerId()).text()),
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
}
