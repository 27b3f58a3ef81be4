package org.mossbank.server.calibration;

import jakarta.validation.Valid;
import java.util.List;
import org.mossbank.server.acts.OnRecord;
import org.mossbank.server.answer.GradedCode;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
class CalibrationController {
    private final CalibrationDesk desk;
    private final CalibrationService calibrations;
    private final CalibrationTalk talk;
    private final CalibrationWithout without;
    private final CalibrationCode code;
    private final CalibrationReferences references;
    private final CalibrationKeeping keeping;
    private final OnRecord record;

    CalibrationController(
            CalibrationDesk desk,
            CalibrationService calibrations,
            CalibrationTalk talk,
            CalibrationWithout without,
            CalibrationCode code,
            CalibrationReferences references,
            CalibrationKeeping keeping,
            OnRecord record) {
        this.code = code;
        this.references = references;
        this.keeping = keeping;
        this.without = without;
        this.desk = desk;
        this.calibrations = calibrations;
        this.talk = talk;
        this.record = record;
    }

    /** Calibrations in which whoever asks takes part, before the round, over all studies. */
    @GetMapping("/api/calibrations")
    List<CalibrationViews.CalibrationSummary> mine() {
        return desk.mine();
    }

    /** A study's calibrations, in their order. */
    @GetMapping("/api/studies/{studyId}/calibrations")
    List<CalibrationViews.CalibrationSummary> ofStudy(@PathVariable StudyId studyId) {
        return desk.ofStudy(studyId);
    }

    /** Begins a calibration: lays its prompts before every rater. */
    @MayRefuse({ProblemType.NOT_READY, ProblemType.ROUND_OPENED})
    @PostMapping("/api/studies/{studyId}/calibrations")
    @ResponseStatus(HttpStatus.CREATED)
    List<CalibrationViews.CalibrationSummary> begin(
            @PathVariable StudyId studyId, @Valid @RequestBody CalibrationRequests.Begin request) {
        return record.of(studyId, () -> {
            calibrations.begin(studyId, request, references.masked(studyId, request.promptIds()));
            return desk.ofStudy(studyId);
        });
    }

    /** A calibration: once all are in, what everybody gave, side by side. */
    @GetMapping("/api/studies/{studyId}/calibrations/{number}")
    CalibrationViews.CalibrationPage page(@PathVariable StudyId studyId, @PathVariable int number) {
        return desk.page(studyId, number);
    }

    /** Has a calibration graded again, by the newest version of the rubric. */
    @MayRefuse({ProblemType.NOT_READY, ProblemType.ROUND_OPENED})
    @PostMapping("/api/studies/{studyId}/calibrations/{number}/again")
    CalibrationViews.CalibrationPage again(@PathVariable StudyId studyId, @PathVariable int number) {
        return record.of(studyId, () -> {
            calibrations.again(studyId, number);
            return desk.page(studyId, number);
        });
    }

    /** Keeps a calibration's prompts in the bank, with the answers that have a level. */
    @MayRefuse(ProblemType.NOT_READY)
    @PostMapping("/api/studies/{studyId}/calibrations/{number}/keep")
    List<CalibrationViews.KeptPrompt> keep(@PathVariable StudyId studyId, @PathVariable int number) {
        return keeping.keep(studyId, number);
    }

    /** Goes on without somebody who does not send in. */
    @MayRefuse({ProblemType.NOT_READY, ProblemType.ROUND_CLOSED})
    @PostMapping("/api/studies/{studyId}/calibrations/{number}/without")
    CalibrationViews.CalibrationPage without(
            @PathVariable StudyId studyId,
            @PathVariable int number,
            @Valid @RequestBody CalibrationRequests.GoOnWithout request) {
        return record.of(studyId, () -> {
            without.goOn(studyId, number, request);
            return desk.page(studyId, number);
        });
    }

    /** An answer that raters calibrate by, with what they gave and say. */
    @GetMapping("/api/studies/{studyId}/calibrations/{number}/answers/{place}")
    CalibrationViews.AnswerTalk answer(
            @PathVariable StudyId studyId, @PathVariable int number, @PathVariable int place) {
        return talk.answer(studyId, number, place);
    }

    /** What an answer that raters calibrate by changes in the starting code. */
    @GetMapping("/api/studies/{studyId}/calibrations/{number}/answers/{place}/code")
    GradedCode code(@PathVariable StudyId studyId, @PathVariable int number, @PathVariable int place) {
        return code.of(studyId, number, place);
    }

    /** Says something about an answer, one criterion or some lines. */
    @MayRefuse({ProblemType.NOT_READY, ProblemType.TOO_LATE})
    @PostMapping("/api/studies/{studyId}/calibrations/{number}/answers/{place}/words")
    CalibrationViews.AnswerTalk say(
            @PathVariable StudyId studyId,
            @PathVariable int number,
            @PathVariable int place,
            @Valid @RequestBody CalibrationRequests.SayOfAnswer request) {
        return talk.say(studyId, number, place, request);
    }

    /** Says at which level an answer should stand. */
    @MayRefuse(ProblemType.NOT_READY)
    @PutMapping("/api/studies/{studyId}/calibrations/{number}/answers/{place}/levels/{criterion}/{source}")
    CalibrationViews.AnswerTalk agree(
            @PathVariable StudyId studyId,
            @PathVariable int number,
            @PathVariable int place,
            @PathVariable String criterion,
            @PathVariable Calibrations.Source source,
            @Valid @RequestBody CalibrationRequests.Agree request) {
        return talk.agree(studyId, number, place, criterion, source, request);
    }

    /** Takes back at which level an answer should stand. */
    @MayRefuse(ProblemType.NOT_READY)
    @DeleteMapping("/api/studies/{studyId}/calibrations/{number}/answers/{place}/levels/{criterion}/{source}")
    CalibrationViews.AnswerTalk disagree(
            @PathVariable StudyId studyId,
            @PathVariable int number,
            @PathVariable int place,
            @PathVariable String criterion,
            @PathVariable Calibrations.Source source) {
        return talk.disagree(studyId, number, place, criterion, source);
    }
}
