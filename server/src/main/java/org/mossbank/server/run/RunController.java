package org.mossbank.server.run;

import jakarta.validation.Valid;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.LargeBody;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

@RestController
@LargeBody(LargeBody.FORM)
@RequestMapping("/api/studies/{studyId}/runs")
class RunController {
    private final RunService runs;
    private final FollowUpRuns followUps;
    private final NeededFollowUps needed;
    private final BeforeSending sending;
    private final RunEvents events;

    RunController(
            RunService runs, FollowUpRuns followUps, NeededFollowUps needed, BeforeSending sending, RunEvents events) {
        this.sending = sending;
        this.needed = needed;
        this.runs = runs;
        this.followUps = followUps;
        this.events = events;
    }

    /** Runs of a study, newest first. */
    @GetMapping
    List<RunView> ofStudy(@PathVariable StudyId studyId) {
        return runs.ofStudy(studyId);
    }

    /** What a run would ask, and what it would cost at most. */
    @PostMapping("/forecast")
    RunForecast forecast(@PathVariable StudyId studyId, @Valid @RequestBody StartRun request) {
        return runs.forecast(studyId, request);
    }

    /** Starts to ask candidates at their sources. */
    @MayRefuse({ProblemType.ROUND_OPENED, ProblemType.SECRETS_FOUND, ProblemType.BUSY})
    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    RunView start(@PathVariable StudyId studyId, @Valid @RequestBody StartRun request) {
        sending.require(studyId, request.promptIds());
        return runs.start(studyId, request);
    }

    /** Starts to ask a prepared follow-up. */
    @MayRefuse({ProblemType.ROUND_OPENED, ProblemType.SECRETS_FOUND, ProblemType.BUSY})
    @PostMapping("/follow-up")
    @ResponseStatus(HttpStatus.CREATED)
    RunView followUp(@PathVariable StudyId studyId, @Valid @RequestBody FollowUpRuns.AskFollowUp request) {
        sending.require(studyId, request);
        return followUps.followUp(studyId, request);
    }

    /** Starts to ask the next prepared follow-up of every answer whose last reply is found not to do what was asked. */
    @MayRefuse({ProblemType.ROUND_OPENED, ProblemType.NOT_READY, ProblemType.SECRETS_FOUND, ProblemType.BUSY})
    @PostMapping("/follow-ups-where-needed")
    @ResponseStatus(HttpStatus.CREATED)
    RunView followUpsWhereNeeded(@PathVariable StudyId studyId) {
        sending.requireAll(studyId);
        return needed.ask(studyId);
    }

    /** A run with each of its cells. */
    @GetMapping("/{runId}")
    RunView one(@PathVariable StudyId studyId, @PathVariable UUID runId) {
        return runs.one(studyId, runId);
    }

    /** How a run goes, as server-sent events. */
    @GetMapping(path = "/{runId}/events", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter events(@PathVariable StudyId studyId, @PathVariable UUID runId) {
        return events.follow(runs.one(studyId, runId));
    }

    /** A reply that came after its answer had been given up. */
    @GetMapping("/{runId}/cells/{place}/late-reply")
    RunService.LateReply lateReply(@PathVariable StudyId studyId, @PathVariable UUID runId, @PathVariable int place) {
        return runs.lateReply(studyId, runId, place);
    }

    /** Stops a run. */
    @PostMapping("/{runId}/stop")
    RunView stop(
            @PathVariable StudyId studyId, @PathVariable UUID runId, @Valid @RequestBody RunService.StopRun request) {
        return runs.stop(studyId, runId, request);
    }

    /** Goes on with a run that was stopped. */
    @MayRefuse({ProblemType.ROUND_OPENED, ProblemType.SECRETS_FOUND, ProblemType.BUSY})
    @PostMapping("/{runId}/resume")
    RunView resume(@PathVariable StudyId studyId, @PathVariable UUID runId) {
        sending.require(studyId, runId);
        return runs.resume(studyId, runId);
    }

    /** Asks again what failed in a run; its answers are taken out. */
    @MayRefuse({ProblemType.ROUND_OPENED, ProblemType.SECRETS_FOUND, ProblemType.BUSY})
    @PostMapping("/{runId}/failed-again")
    RunView failedAgain(@PathVariable StudyId studyId, @PathVariable UUID runId) {
        sending.require(studyId, runId);
        return runs.failedAgain(studyId, runId);
    }

    /** Asks again what was turned away in a run. */
    @MayRefuse({ProblemType.ROUND_OPENED, ProblemType.SECRETS_FOUND, ProblemType.BUSY})
    @PostMapping("/{runId}/again")
    RunView again(@PathVariable StudyId studyId, @PathVariable UUID runId) {
        sending.require(studyId, runId);
        return runs.again(studyId, runId);
    }

    /** Sets how much a run may cost. */
    @MayRefuse(ProblemType.ROUND_OPENED)
    @PutMapping("/{runId}/budget")
    RunView budget(
            @PathVariable StudyId studyId, @PathVariable UUID runId, @Valid @RequestBody RunService.Budget request) {
        return runs.budget(studyId, runId, request);
    }
}
