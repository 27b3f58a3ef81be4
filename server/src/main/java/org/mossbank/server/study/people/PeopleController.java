package org.mossbank.server.study.people;

import jakarta.validation.Valid;
import java.util.List;
import org.mossbank.server.account.Invitation;
import org.mossbank.server.ids.AccountId;
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
class PeopleController {
    private final PeopleService people;
    private final Leadership leadership;
    private final LeaversService leavers;
    private final OwnExpectations expectations;

    PeopleController(
            PeopleService people, Leadership leadership, LeaversService leavers, OwnExpectations expectations) {
        this.expectations = expectations;
        this.leavers = leavers;
        this.leadership = leadership;
        this.people = people;
    }

    /** Who leads, who grades, and who is asked. */
    @GetMapping("/api/studies/{studyId}/people")
    List<PeopleService.PersonView> all(@PathVariable StudyId studyId) {
        return people.all(studyId);
    }

    /** Adds a rater, a reader or another lead, by an invitation where there is no account yet; also while raters grade. */
    @MayRefuse(ProblemType.ROUND_CLOSED)
    @PostMapping("/api/studies/{studyId}/raters")
    @ResponseStatus(HttpStatus.CREATED)
    PeopleService.AddedRater add(@PathVariable StudyId studyId, @Valid @RequestBody PeopleService.AddRater request) {
        return people.add(studyId, request);
    }

    /** Lets somebody of the study lead it, too. */
    @MayRefuse({ProblemType.ROUND_OPENED, ProblemType.NOT_READY, ProblemType.ACCOUNT_DEACTIVATED})
    @PostMapping("/api/studies/{studyId}/leads/{accountId}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void letLead(@PathVariable StudyId studyId, @PathVariable AccountId accountId) {
        leadership.letLead(studyId, accountId);
    }

    /** Leads no more, and reads from then on. */
    @MayRefuse(ProblemType.LAST_LEAD)
    @PostMapping("/api/studies/{studyId}/step-back")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void stepBack(@PathVariable StudyId studyId) {
        leadership.stepBack(studyId);
    }

    /** Hands the study over: somebody else leads it, and whoever asks steps back. */
    @MayRefuse({ProblemType.ROUND_OPENED, ProblemType.NOT_READY, ProblemType.LAST_LEAD, ProblemType.ACCOUNT_DEACTIVATED
    })
    @PostMapping("/api/studies/{studyId}/hand-over/{accountId}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void handOver(@PathVariable StudyId studyId, @PathVariable AccountId accountId) {
        leadership.handOver(studyId, accountId);
    }

    /** What a study calls people who have left. */
    @GetMapping("/api/studies/{studyId}/leavers")
    LeaversService.Leavers leavers(@PathVariable StudyId studyId) {
        return leavers.of(studyId);
    }

    /** Says what a study calls people who have left, from now on. */
    @PutMapping("/api/studies/{studyId}/leavers")
    LeaversService.Leavers showLeavers(
            @PathVariable StudyId studyId, @Valid @RequestBody LeaversService.Leavers request) {
        return leavers.show(studyId, request);
    }

    /** Takes a rater out before the round is opened; a reader at any time. */
    @MayRefuse({ProblemType.CALIBRATING, ProblemType.ROUND_OPENED})
    @DeleteMapping("/api/studies/{studyId}/raters/{raterId}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable StudyId studyId, @PathVariable AccountId raterId) {
        people.remove(studyId, raterId);
    }

    /** Makes a new one-time link for a rater. */
    @MayRefuse(ProblemType.HAS_PASSWORD)
    @PostMapping("/api/studies/{studyId}/raters/{raterId}/link")
    Invitation invite(@PathVariable StudyId studyId, @PathVariable AccountId raterId) {
        return people.invite(studyId, raterId);
    }

    /** Studies that one is asked to grade in and has not accepted. */
    @GetMapping("/api/asked")
    List<PeopleService.Asked> asked() {
        return people.asked();
    }

    /** Accepts to grade in a study. */
    @PostMapping("/api/asked/{studyId}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void accept(@PathVariable StudyId studyId) {
        people.accept(studyId);
    }

    /** Declines to grade in a study. */
    @DeleteMapping("/api/asked/{studyId}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void decline(@PathVariable StudyId studyId) {
        people.decline(studyId);
    }

    /** What one expects of a study, as one said before grading. */
    @GetMapping("/api/studies/{studyId}/expectation")
    OwnExpectations.OwnExpectation expectation(@PathVariable StudyId studyId) {
        return expectations.expectation(studyId);
    }

    /** Says which candidate one expects to do best, before one grades. */
    @MayRefuse(ProblemType.TOO_LATE)
    @PutMapping("/api/studies/{studyId}/expectation")
    OwnExpectations.OwnExpectation declare(
            @PathVariable StudyId studyId, @Valid @RequestBody OwnExpectations.Declare request) {
        return expectations.declare(studyId, request);
    }
}
