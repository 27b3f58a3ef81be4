package org.mossbank.server.reconciliation;

import jakarta.validation.Valid;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.acts.OnRecord;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
class SplitsController {
    private static final String SPLITS = "/api/studies/{studyId}/splits";
    private static final String SPLIT = SPLITS + "/{splitId}";

    private final SplitDesk splits;
    private final SplitClosings closings;
    private final OnRecord onRecord;

    SplitsController(SplitDesk splits, SplitClosings closings, OnRecord onRecord) {
        this.splits = splits;
        this.closings = closings;
        this.onRecord = onRecord;
    }

    /** Splits of a study that are talked about, or were. */
    @GetMapping(SPLITS)
    List<SplitViews.TakenUp> ofStudy(@PathVariable StudyId studyId) {
        return splits.ofStudy(studyId);
    }

    /** Takes splits up: the raters concerned may talk about them. */
    @MayRefuse({ProblemType.NOT_READY, ProblemType.ROUND_CLOSED})
    @PostMapping(SPLITS)
    SplitViews.TookUp takeUp(@PathVariable StudyId studyId, @Valid @RequestBody SplitRequests.TakeUp request) {
        return splits.takeUp(studyId, request);
    }

    /** Takes the widest splits up that are not yet. */
    @MayRefuse({ProblemType.NOT_READY, ProblemType.ROUND_CLOSED})
    @PostMapping(SPLITS + "/widest")
    SplitViews.TookUp takeUpWidest(
            @PathVariable StudyId studyId, @Valid @RequestBody SplitRequests.TakeUpWidest request) {
        return splits.takeUpWidest(studyId, request);
    }

    /** Settles a split at a level, with a reason. */
    @MayRefuse({ProblemType.ROUND_CLOSED, ProblemType.SPLIT_CLOSED})
    @PostMapping(SPLIT + "/settle")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void settle(
            @PathVariable StudyId studyId,
            @PathVariable UUID splitId,
            @Valid @RequestBody SplitRequests.Settle request) {
        onRecord.of(studyId, () -> closings.settle(studyId, splitId, request));
    }

    /** Ends the talk about a split without a settled grade. */
    @MayRefuse({ProblemType.ROUND_CLOSED, ProblemType.SPLIT_CLOSED})
    @PostMapping(SPLIT + "/leave-open")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void leaveOpen(
            @PathVariable StudyId studyId,
            @PathVariable UUID splitId,
            @Valid @RequestBody SplitRequests.LeaveOpen request) {
        onRecord.of(studyId, () -> closings.leaveOpen(studyId, splitId, request));
    }

    /** Opens a closed split again. */
    @MayRefuse(ProblemType.ROUND_CLOSED)
    @PostMapping(SPLIT + "/open-again")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void openAgain(
            @PathVariable StudyId studyId,
            @PathVariable UUID splitId,
            @Valid @RequestBody SplitRequests.OpenSplitAgain request) {
        onRecord.of(studyId, () -> closings.openAgain(studyId, splitId, request));
    }

    /** Who could look at a split's answer without seeing anybody's grades. */
    @GetMapping(SPLIT + "/looks")
    List<SplitViews.MayLook> mayLook(@PathVariable StudyId studyId, @PathVariable UUID splitId) {
        return closings.mayLook(studyId, splitId);
    }

    /** Asks somebody for such a look. */
    @MayRefuse({ProblemType.NOT_READY, ProblemType.ROUND_CLOSED, ProblemType.SPLIT_CLOSED})
    @PostMapping(SPLIT + "/looks")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void askLook(
            @PathVariable StudyId studyId,
            @PathVariable UUID splitId,
            @Valid @RequestBody SplitRequests.AskLook request) {
        closings.askLook(studyId, splitId, request);
    }
}
