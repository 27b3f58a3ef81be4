package org.mossbank.server.grading.desk;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.mossbank.server.grading.Mark;
import org.mossbank.server.grading.SheetsAtDesk;
import org.mossbank.server.grading.sheet.Grade;
import org.mossbank.server.grading.sheet.GradeRepository;
import org.mossbank.server.grading.sheet.RoundRepository;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetAnswer;
import org.mossbank.server.grading.sheet.SheetAnswerRepository;
import org.mossbank.server.grading.sheet.SheetRepository;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.study.Studies;
import org.springframework.stereotype.Component;

/** Sheets as other modules see them that lay something beside them. */
@Component
class AtDesk implements SheetsAtDesk {
    private final SheetAccess access;
    private final OpenedSheets opened;
    private final SheetFrames frames;
    private final SheetRepository sheets;
    private final RoundRepository rounds;
    private final SheetAnswerRepository sheetAnswers;
    private final GradeRepository grades;
    private final Studies studies;

    AtDesk(
            SheetAccess access,
            OpenedSheets opened,
            SheetFrames frames,
            SheetRepository sheets,
            RoundRepository rounds,
            SheetAnswerRepository sheetAnswers,
            GradeRepository grades,
            Studies studies) {
        this.access = access;
        this.opened = opened;
        this.frames = frames;
        this.sheets = sheets;
        this.rounds = rounds;
        this.sheetAnswers = sheetAnswers;
        this.grades = grades;
        this.studies = studies;
    }

    @Override
    public SheetAtDesk own(SheetId id) {
        access.isOwn(id);
        return of(opened.sheet(id));
    }

    @Override
    public Map<SheetId, Place> places(StudyId study) {
        return sheets.places(study).stream()
                .collect(Collectors.toMap(
                        SheetRepository.SheetPlace::id, s -> new Place(s.raterId(), s.promptId(), s.repeat())));
    }

    @Override
    public Map<AnswerPlace, SheetAnswerId> answerPlaces(StudyId study) {
        return sheets.answerPlaces(study).stream()
                .collect(Collectors.toMap(
                        a -> new AnswerPlace(a.raterId(), a.answerId(), a.repeat()), SheetRepository.AnswerPlace::id));
    }

    SheetAtDesk of(Sheet sheet) {
        List<CriterionView> criteria = frames.of(sheet.id()).criteria();
        Optional<CriterionView> speaks = DeskService.spokenFor(criteria, studies.get(sheet.studyId()));
        List<CriterionId> asked = speaks.map(List::of).orElse(criteria).stream()
                .map(CriterionView::id)
                .toList();
        List<SheetAnswer> onSheet = sheetAnswers.findBySheetIdInOrderByPlace(List.of(sheet.id()));
        Map<Grade.Key, Grade> marks = grades
                .ofSheetAnswers(onSheet.stream().map(SheetAnswer::id).toList())
                .stream()
                .collect(Collectors.toMap(Grade::key, Function.identity()));
        return new SheetAtDesk(
                sheet.id(),
                sheet.studyId(),
                sheet.promptId(),
                sheet.raterId(),
                !sheet.isSent()
                        && !sheet.isWithdrawn()
                        && !rounds.findById(sheet.studyId()).orElseThrow().isClosed(),
                onSheet.stream()
                        .map(a -> atDesk(
                                a,
                                asked.stream()
                                        .map(c -> Optional.ofNullable(marks.get(new Grade.Key(a.id(), c)))
                                                .map(Grade::mark)
                                                .filter(Mark::isMade))
                                        .toList(),
                                speaks.isPresent()))
                        .toList());
    }

    private static AnswerAtDesk atDesk(SheetAnswer answer, List<Optional<Mark>> marks, boolean isOne) {
        return new AnswerAtDesk(
                answer.id(),
                answer.answerId(),
                marks.stream().allMatch(Optional::isPresent),
                isOne
                        ? marks.stream()
                                .flatMap(Optional::stream)
                                .findFirst()
                                .map(Mark::level)
                                .orElse(null)
                        : null);
    }
}
