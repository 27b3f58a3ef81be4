package org.mossbank.server.calibration;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.study.RoundStage;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyAccess;
import org.springframework.stereotype.Component;

/** Reads calibrations, and says how far they are. Within the transaction of whoever asks. */
@Component
class CalibrationReader {
    private final CalibrationRepository all;
    private final AgreedLevelRepository levels;
    private final Prompts prompts;
    private final Rubrics rubrics;
    private final Grading grading;
    private final Studies studies;
    private final StudyAccess access;

    CalibrationReader(
            CalibrationRepository all,
            AgreedLevelRepository levels,
            Prompts prompts,
            Rubrics rubrics,
            Grading grading,
            Studies studies,
            StudyAccess access) {
        this.all = all;
        this.levels = levels;
        this.prompts = prompts;
        this.rubrics = rubrics;
        this.grading = grading;
        this.studies = studies;
        this.access = access;
    }

    /** @throws Problem 404 if the study has none of this number */
    Calibration found(StudyId study, int number) {
        return all.findById(new Calibration.Key(study, number)).orElseThrow(() -> Problem.notFound("This calibration"));
    }

    List<Prompts.Outline> outlines(Calibration.Key key) {
        return prompts.outlines(key.studyId()).stream()
                .filter(p -> p.calibration() != null && p.calibration() == key.number() && !p.isFaulty())
                .toList();
    }

    /**
     * A calibration's prompts, and their sheets of those who still belong to the study.
     *
     * @param outlines of sound prompts
     */
    record Material(List<Prompts.Outline> outlines, List<Grading.SheetState> sheets) {}

    /** Of some calibrations of any studies, however many, with as many questions as for one. */
    Map<Calibration.Key, Material> material(List<Calibration> some) {
        List<StudyId> ids = some.stream().map(c -> c.key().studyId()).distinct().toList();
        Map<StudyId, Set<AccountId>> raters = studies.raters(ids);
        List<Prompts.Outline> calibrating = prompts.outlines(ids).stream()
                .filter(p -> p.calibration() != null && !p.isFaulty())
                .toList();
        List<PromptId> promptIds = calibrating.stream().map(Prompts.Outline::id).toList();
        Map<PromptId, StudyId> studyOf = prompts.studiesOf(promptIds);
        Map<PromptId, List<Grading.SheetState>> sheets =
                grading.sheetsFor(promptIds).stream().collect(Collectors.groupingBy(Grading.SheetState::promptId));
        Map<Calibration.Key, List<Prompts.Outline>> outlines = calibrating.stream()
                .collect(Collectors.groupingBy(p ->
                        new Calibration.Key(Require.known(studyOf, p.id()), Objects.requireNonNull(p.calibration()))));
        return some.stream().map(Calibration::key).collect(Collectors.toMap(Function.identity(), key -> {
            List<Prompts.Outline> own = outlines.getOrDefault(key, List.of());
            Set<AccountId> grade = raters.getOrDefault(key.studyId(), Set.of());
            return new Material(
                    own,
                    own.stream()
                            .flatMap(p -> sheets.getOrDefault(p.id(), List.of()).stream())
                            .filter(s -> grade.contains(s.raterId()))
                            .toList());
        }));
    }

    private List<PromptId> promptIds(Calibration.Key key) {
        return outlines(key).stream().map(Prompts.Outline::id).toList();
    }

    /** Sheets of those who still belong to the study. */
    List<Grading.SheetState> sheets(Calibration.Key key) {
        List<AccountId> raters = studies.raters(key.studyId());
        return grading.sheetsFor(promptIds(key)).stream()
                .filter(s -> raters.contains(s.raterId()))
                .toList();
    }

    CalibrationBasis basis(Calibration calibration) {
        Calibration.Key key = calibration.key();
        List<PromptId> ids = promptIds(key);
        List<PromptView> views = prompts.graded(key.studyId()).stream()
                .filter(p -> ids.contains(p.id()))
                .toList();
        Calibrations.CalibrationCourse course = calibration.course();
        List<CriterionView> criteria = rubrics.by(key.studyId(), course.rubricVersion());
        Map<CriterionId, String> keys = new HashMap<>();
        Stream.concat(criteria.stream(), rubrics.all(key.studyId()).stream().flatMap(v -> v.criteria().stream()))
                .forEach(c -> keys.put(c.id(), c.key()));
        return new CalibrationBasis(
                calibration,
                views,
                criteria,
                keys,
                ids.stream()
                        .flatMap(p -> grading.sentRecords(key.studyId(), p).stream())
                        .toList(),
                ids.stream()
                        .flatMap(p -> grading.sentAgain(key.studyId(), p).stream())
                        .toList(),
                CalibrationBasis.inOrder(views, grading.answersOn(key.studyId(), ids)),
                levels.of(key.studyId(), key.number()).stream()
                        .map(AgreedLevel::agreed)
                        .toList());
    }

    /**
     * What somebody may see of it. Before the talk the lead reads the answers alone, to note at which level they should stand.
     *
     * @throws Problem 404 if they may not see its answers yet
     */
    CalibrationBasis opened(StudyId study, int number, AccountId reader) {
        Calibration calibration = found(study, number);
        if (mayCompare(calibration, reader, sheets(calibration.key()))) {
            return basis(calibration);
        }
        if (calibration.isTalkOpen() || !leads(study)) {
            throw Problem.notFound("This answer");
        }
        return basis(calibration).ungraded();
    }

    /** Whether whoever asks settles levels. */
    boolean leads(StudyId study) {
        return access.mayLead(study) && access.mayPrepare(study);
    }

    CalibrationViews.Stage stage(Calibration calibration, List<Grading.SheetState> sheets) {
        if (studies.stage(calibration.key().studyId()) != RoundStage.Stage.PREPARING) {
            return CalibrationViews.Stage.OVER;
        }
        if (!calibration.isTalkOpen()) {
            return CalibrationViews.Stage.GRADING;
        }
        return sheets.stream().anyMatch(s -> s.repeat() && !s.sent())
                ? CalibrationViews.Stage.AGAIN
                : CalibrationViews.Stage.TALK;
    }

    /** Whether somebody may see what others gave: the lead, and raters who have sent in their own. */
    boolean mayCompare(Calibration calibration, AccountId reader, List<Grading.SheetState> sheets) {
        if (!calibration.isTalkOpen()) {
            return false;
        }
        List<Grading.SheetState> own = sheets.stream()
                .filter(s -> s.raterId().equals(reader) && !s.repeat())
                .toList();
        return access.mayPrepare(calibration.key().studyId())
                || !own.isEmpty() && own.stream().allMatch(Grading.SheetState::sent);
    }

    /** Whether something may be said and settled: from the talk's beginning until the round is closed, but while it is graded again. */
    boolean isTalking(Calibration calibration, List<Grading.SheetState> sheets) {
        return calibration.isTalkOpen()
                && stage(calibration, sheets) != CalibrationViews.Stage.AGAIN
                && studies.stage(calibration.key().studyId()) != RoundStage.Stage.CLOSED;
    }
}
