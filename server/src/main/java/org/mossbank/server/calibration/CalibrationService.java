package org.mossbank.server.calibration;

import java.util.List;
import java.util.Map;
import org.mossbank.server.account.Actor;
import org.mossbank.server.acts.ActSort;
import org.mossbank.server.acts.Acts;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.Studies;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Beginning a calibration, and having it graded again. */
@Service
@Transactional
class CalibrationService {
    private final CalibrationReader reader;
    private final CalibrationRepository all;
    private final CalibrationSheets sheets;
    private final Studies studies;
    private final CalibrationReferences references;
    private final CalibrationReadiness readiness;
    private final Acts acts;
    private final Actor actor;

    CalibrationService(
            CalibrationReader reader,
            CalibrationRepository all,
            CalibrationSheets sheets,
            Studies studies,
            CalibrationReferences references,
            CalibrationReadiness readiness,
            Acts acts,
            Actor actor) {
        this.readiness = readiness;
        this.reader = reader;
        this.all = all;
        this.sheets = sheets;
        this.studies = studies;
        this.references = references;
        this.acts = acts;
        this.actor = actor;
    }

    /**
     * Lays two to five prompts before every rater; from then on they count nowhere.
     *
     * @param masked texts of specimens in which a name had to be masked
     * @throws Problem 409 naming what is missing
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public void begin(StudyId study, CalibrationRequests.Begin request, Map<AnswerId, String> masked) {
        studies.claimForRound(study);
        List<PromptId> chosen = request.promptIds().stream().distinct().toList();
        List<AccountId> raters = studies.raters(study);
        int version = readiness.require(study, chosen, raters);
        int number = all.ofStudy(study).size() + 1;
        Calibration.Key key = new Calibration.Key(study, number);
        all.save(Calibration.of(
                key, new Calibrations.CalibrationCourse(actor.now(), actor.name(), version, null, null)));
        references.take(key, chosen, version, masked);
        sheets.lay(study, raters, chosen, version, false);
        acts.keep(
                study,
                ActSort.CALIBRATION_BEGUN,
                "calibration %d, prompts: %d, version %d of the rubric".formatted(number, chosen.size(), version),
                "");
    }

    /**
     * Lays the same answers before the same raters once more, by the newest version of the rubric.
     *
     * @throws Problem 409 before the talk, or if it was graded again already
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public void again(StudyId study, int number) {
        studies.claimForRound(study);
        Calibration calibration = reader.found(study, number);
        if (!calibration.isTalkOpen()) {
            throw new Problem(ProblemType.NOT_READY, "Not everybody has sent in yet.");
        }
        if (calibration.course().again() != null) {
            throw new Problem(
                    ProblemType.NOT_READY,
                    "It was graded again. For another look at the ruler, calibrate by other prompts.");
        }
        int version = readiness.version(study).orElseThrow();
        List<AccountId> raters = reader.sheets(calibration.key()).stream()
                .filter(Grading.SheetState::sent)
                .map(Grading.SheetState::raterId)
                .distinct()
                .toList();
        calibration.gradeAgain(new Calibrations.GradedAgain(actor.now(), version));
        sheets.lay(
                study,
                raters,
                reader.outlines(calibration.key()).stream()
                        .map(Prompts.Outline::id)
                        .toList(),
                version,
                true);
        acts.keep(
                study,
                ActSort.CALIBRATION_AGAIN,
                "calibration %d, version %d of the rubric".formatted(number, version),
                "");
    }
}
