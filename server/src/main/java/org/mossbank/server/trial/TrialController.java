package org.mossbank.server.trial;

import jakarta.validation.Valid;
import java.util.UUID;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.live.LiveBoards;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

@RestController
@RequestMapping("/api/studies/{studyId}/trials")
class TrialController {
    private final TrialService trials;
    private final TrialEvents events;

    TrialController(TrialService trials, TrialEvents events) {
        this.trials = trials;
        this.events = events;
    }

    /** Tells a browser how many trials are how far, until none waits or runs. */
    @Component
    record TrialEvents(TrialRepository trials, LiveBoards live) {
        SseEmitter follow(StudyId study, TrialBoard.TrialsSoFar first) {
            return live.follow(
                    first, () -> TrialBoard.TrialsSoFar.of(trials.counts(study)), TrialBoard.TrialsSoFar::isMoving);
        }
    }

    /** The trials of a study's answers, and how far they are. */
    @GetMapping
    TrialBoard board(@PathVariable StudyId studyId) {
        return trials.board(studyId);
    }

    /** How many trials are how far, as server-sent events whenever that changes. */
    @GetMapping(path = "/events", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter events(@PathVariable StudyId studyId) {
        return events.follow(studyId, trials.soFar(studyId));
    }

    /** What came of a trial, item by item, with its log. */
    @GetMapping("/{trialId}")
    TrialResult one(@PathVariable StudyId studyId, @PathVariable UUID trialId) {
        return trials.one(studyId, trialId);
    }

    /** A picture of an answer's page, in the order in which the trial tells of them. */
    @GetMapping(path = "/{trialId}/pictures/{place}", produces = MediaType.IMAGE_PNG_VALUE)
    byte[] picture(@PathVariable StudyId studyId, @PathVariable UUID trialId, @PathVariable int place) {
        return trials.picture(studyId, trialId, place);
    }

    /** Begins trials of answers; those that there are already stay. */
    @MayRefuse({
        ProblemType.ROUND_OPENED,
        ProblemType.NOT_READY,
        ProblemType.TRIALS_OFF,
        ProblemType.STARTING_CODE_REFUSED
    })
    @PostMapping
    TrialBoard start(@PathVariable StudyId studyId, @Valid @RequestBody TrialService.StartTrials request) {
        return trials.start(studyId, request);
    }

    /** Stops the trials that wait or run. */
    @PostMapping("/stop")
    TrialBoard stop(@PathVariable StudyId studyId) {
        return trials.stop(studyId);
    }

    /** Goes on with the trials that were stopped. */
    @MayRefuse(ProblemType.ROUND_OPENED)
    @PostMapping("/go-on")
    TrialBoard goOn(@PathVariable StudyId studyId) {
        return trials.goOn(studyId);
    }
}
