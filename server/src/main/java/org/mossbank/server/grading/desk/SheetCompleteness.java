package org.mossbank.server.grading.desk;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.mossbank.server.grading.Mark;
import org.mossbank.server.grading.ProposedWorks;
import org.mossbank.server.grading.Works;
import org.mossbank.server.grading.sheet.Grade;
import org.mossbank.server.grading.sheet.GradeRepository;
import org.mossbank.server.grading.sheet.Remark;
import org.mossbank.server.grading.sheet.RemarkRepository;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetAnswer;
import org.mossbank.server.grading.sheet.SheetAnswerRepository;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.RaterTerms;
import org.mossbank.server.study.Studies;
import org.springframework.stereotype.Component;

/** What a sheet must have before it is sent in. Called within the transaction of whoever sends it. */
@Component
class SheetCompleteness {
    private final SheetAnswerRepository sheetAnswers;
    private final GradeRepository grades;
    private final RemarkRepository remarks;
    private final SheetFrames frames;
    private final Studies studies;
    private final AtDesk atDesk;
    private final ProposedWorks proposed;

    SheetCompleteness(
            SheetAnswerRepository sheetAnswers,
            GradeRepository grades,
            RemarkRepository remarks,
            SheetFrames frames,
            Studies studies,
            AtDesk atDesk,
            ProposedWorks proposed) {
        this.sheetAnswers = sheetAnswers;
        this.grades = grades;
        this.remarks = remarks;
        this.frames = frames;
        this.studies = studies;
        this.atDesk = atDesk;
        this.proposed = proposed;
    }

    /** @throws Problem 409 naming what is missing */
    void require(Sheet sheet) {
        SheetFrame frame = frames.of(sheet.id());
        RaterTerms.ReasonRule rule =
                studies.get(sheet.studyId()).brief().raters().reasons();
        List<SheetAnswer> onSheet = sheetAnswers.findBySheetIdInOrderByPlace(List.of(sheet.id()));
        List<SheetAnswerId> ids = onSheet.stream().map(SheetAnswer::id).toList();
        Map<Grade.Key, Grade> marks =
                grades.ofSheetAnswers(ids).stream().collect(Collectors.toMap(Grade::key, Function.identity()));
        List<SheetAnswerId> remarked = remarks.ofSheetAnswers(ids).stream()
                .filter(r -> r.content().filter(c -> !c.words().isBlank()).isPresent())
                .map(Remark::sheetAnswerId)
                .toList();
        List<Problem.FieldError> missing = new ArrayList<>();
        for (SheetAnswer answer : onSheet) {
            Function<CriterionView, Optional<Mark>> markOn =
                    criterion -> Optional.ofNullable(marks.get(new Grade.Key(answer.id(), criterion.id())))
                            .map(Grade::mark)
                            .filter(Mark::isMade);
            for (CriterionView criterion : frame.criteria()) {
                if (markOn.apply(criterion).isEmpty()) {
                    missing.add(new Problem.FieldError(
                            answer.id() + "/" + criterion.id(),
                            "Answer " + (answer.place() + 1) + " has no grade for " + criterion.name()));
                }
            }
            boolean needsReason = frame.criteria().stream()
                    .anyMatch(c ->
                            markOn.apply(c).filter(m -> needsReason(m, c, rule)).isPresent());
            if (needsReason && answer.reason().isBlank() && !remarked.contains(answer.id())) {
                missing.add(new Problem.FieldError(
                        answer.id() + "/reason", "Answer " + (answer.place() + 1) + " has no reason in words"));
            }
        }
        missing.addAll(unexplained(sheet, onSheet));
        if (!missing.isEmpty()) {
            throw new Problem(
                            ProblemType.SHEET_INCOMPLETE,
                            missing.size() == 1 ? "One thing is missing." : missing.size() + " things are missing.")
                    .withErrors(missing);
        }
    }

    /** Whoever says otherwise than a trial that they saw says why. */
    private List<Problem.FieldError> unexplained(Sheet sheet, List<SheetAnswer> onSheet) {
        Map<SheetAnswerId, Works> byTrial = proposed.of(atDesk.of(sheet));
        return onSheet.stream()
                .filter(a -> a.worksWhy().isBlank())
                .filter(a -> Works.isContrary(a.works(), byTrial.get(a.id())))
                .map(a -> new Problem.FieldError(
                        a.id() + "/works",
                        "Answer " + (a.place() + 1) + " was tried and ended otherwise than you say: say why"))
                .toList();
    }

    /** A scale of two levels has nothing but ends, so a level on it needs no reason of its own. */
    private static boolean needsReason(Mark mark, CriterionView criterion, RaterTerms.ReasonRule rule) {
        Integer level = mark.level();
        return rule == RaterTerms.ReasonRule.ALWAYS
                || level == null
                || criterion.levels().size() > 2 && (level == 0 || level == criterion.highestLevel());
    }
}
