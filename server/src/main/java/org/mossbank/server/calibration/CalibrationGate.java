package org.mossbank.server.calibration;

import java.time.Clock;
import java.util.List;
import org.mossbank.server.grading.GradesSeen;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.OpenSheets;
import org.mossbank.server.grading.RaterComesIn;
import org.mossbank.server.grading.SheetHappened;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.plan.OpeningCondition;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.FiguresChanged;
import org.mossbank.server.study.RoundStage;
import org.mossbank.server.study.Studies;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** What calibration means for the rest: when the talk opens, what a round waits for, and who calibrates late. */
@Component
class CalibrationGate implements OpeningCondition, GradesSeen {
    private final CalibrationRepository all;
    private final CalibrationReader reader;
    private final CalibrationSheets sheets;
    private final Prompts prompts;
    private final Rubrics rubrics;
    private final Studies studies;
    private final OpenSheets openSheets;
    private final Clock clock;

    CalibrationGate(
            CalibrationRepository all,
            CalibrationReader reader,
            CalibrationSheets sheets,
            Prompts prompts,
            Rubrics rubrics,
            Studies studies,
            OpenSheets openSheets,
            Clock clock) {
        this.all = all;
        this.reader = reader;
        this.sheets = sheets;
        this.prompts = prompts;
        this.rubrics = rubrics;
        this.studies = studies;
        this.openSheets = openSheets;
        this.clock = clock;
    }

    /** The talk opens with the last sheet, and stays open: from then on what was given first stays as it is. */
    @EventListener
    @Transactional(propagation = Propagation.MANDATORY)
    void openTalk(SheetHappened happened) {
        prompts.outline(happened.promptId())
                .map(Prompts.Outline::calibration)
                .ifPresent(number -> openTalkOnceAllAreIn(new Calibration.Key(happened.studyId(), number)));
    }

    /**
     * Nobody waits for somebody who has left; but what they graded has their name, so they do not leave.
     *
     * @throws Problem 409 if they have begun
     */
    @EventListener
    @Transactional(propagation = Propagation.MANDATORY)
    void openTalk(Studies.RaterLeft left) {
        if (!openSheets.forgetUnbegun(left.studyId(), left.raterId())) {
            throw new Problem(
                    ProblemType.CALIBRATING,
                    "They have begun to calibrate, and what they gave stays under their name. On the page of the calibration you can go on without them.");
        }
        all.ofStudy(left.studyId()).forEach(c -> openTalkOnceAllAreIn(c.key()));
    }

    /** A prompt that was set aside is waited for no longer. */
    @EventListener
    @Transactional(propagation = Propagation.MANDATORY)
    void openTalk(FiguresChanged changed) {
        if (studies.stage(changed.studyId()) == RoundStage.Stage.PREPARING) {
            all.ofStudy(changed.studyId()).forEach(c -> openTalkOnceAllAreIn(c.key()));
        }
    }

    private void openTalkOnceAllAreIn(Calibration.Key key) {
        Calibration calibration = all.findById(key).orElseThrow();
        List<Grading.SheetState> first =
                reader.sheets(key).stream().filter(s -> !s.repeat()).toList();
        if (!calibration.isTalkOpen() && !first.isEmpty() && first.stream().allMatch(Grading.SheetState::sent)) {
            calibration.openTalk(clock.instant());
        }
    }

    @Override
    public boolean hasSeenOthers(StudyId study, AccountId rater, PromptId prompt) {
        return prompts.outline(prompt)
                .map(Prompts.Outline::calibration)
                .flatMap(number -> all.findById(new Calibration.Key(study, number)))
                .filter(c -> reader.mayCompare(c, rater, reader.sheets(c.key())))
                .isPresent();
    }

    /** The newest calibration decides: whoever calibrated anew after a poor one mended something in between. */
    @Override
    @Transactional(readOnly = true)
    public List<String> unmet(StudyId study) {
        List<Calibration> begun = all.ofStudy(study);
        if (begun.isEmpty()) {
            return List.of();
        }
        Calibration newest = begun.get(begun.size() - 1);
        if (!newest.isTalkOpen()) {
            return List.of("Not everybody has sent in what they calibrate by.");
        }
        return new CalibrationFigures(
                        reader.basis(newest), studies.get(study).brief().rule())
                .shortOfFloor();
    }

    /** Somebody who comes in late calibrates first, by the rubric as it is now, against what was settled. */
    @EventListener
    @Transactional(propagation = Propagation.MANDATORY)
    void calibrateLate(RaterComesIn late) {
        List<Calibration> begun = all.ofStudy(late.studyId());
        if (!begun.isEmpty()) {
            Calibration.Key newest = begun.get(begun.size() - 1).key();
            sheets.lay(
                    late.studyId(),
                    List.of(late.raterId()),
                    reader.outlines(newest).stream().map(Prompts.Outline::id).toList(),
                    rubrics.version(late.studyId()).orElseThrow().number(),
                    false);
        }
    }
}
