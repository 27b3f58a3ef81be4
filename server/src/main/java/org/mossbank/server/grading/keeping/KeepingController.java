package org.mossbank.server.grading.keeping;

import jakarta.validation.Valid;
import org.mossbank.server.acts.OnRecord;
import org.mossbank.server.grading.Withdraw;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
class KeepingController {
    private final KeepingService keeping;
    private final DealingService dealing;
    private final TakingOutService takingOut;
    private final OnRecord record;

    KeepingController(KeepingService keeping, DealingService dealing, TakingOutService takingOut, OnRecord record) {
        this.takingOut = takingOut;
        this.keeping = keeping;
        this.dealing = dealing;
        this.record = record;
    }

    /** Withdraws a sheet with a reason: what is on it counts nowhere. */
    @MayRefuse(ProblemType.ROUND_CLOSED)
    @PostMapping("/api/studies/{studyId}/sheets/{sheetId}/withdraw")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void withdraw(@PathVariable StudyId studyId, @PathVariable SheetId sheetId, @Valid @RequestBody Withdraw request) {
        record.of(studyId, () -> keeping.withdraw(studyId, sheetId, request));
    }

    /** Gives a withdrawn sheet back to its rater. */
    @MayRefuse(ProblemType.ROUND_CLOSED)
    @PostMapping("/api/studies/{studyId}/sheets/{sheetId}/give-back")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void giveBack(
            @PathVariable StudyId studyId,
            @PathVariable SheetId sheetId,
            @Valid @RequestBody KeepingService.GiveBack request) {
        record.of(studyId, () -> keeping.giveBack(studyId, sheetId, request));
    }

    /** Lays a sheet before another rater instead. */
    @MayRefuse({ProblemType.ROUND_CLOSED, ProblemType.SHEET_SENT})
    @PostMapping("/api/studies/{studyId}/sheets/{sheetId}/hand-over")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void handOver(
            @PathVariable StudyId studyId,
            @PathVariable SheetId sheetId,
            @Valid @RequestBody KeepingService.HandOver request) {
        record.of(studyId, () -> keeping.handOver(studyId, sheetId, request));
    }

    /** What taking a rater out of the round would come to, before it is done. */
    @MayRefuse({ProblemType.NOT_READY, ProblemType.ROUND_CLOSED})
    @PostMapping("/api/studies/{studyId}/round/take-out/preview")
    TakingOutService.TakenOutView previewTakingOut(
            @PathVariable StudyId studyId, @Valid @RequestBody TakingOutService.LookAtTakingOut request) {
        return takingOut.preview(studyId, request);
    }

    /** Takes a rater out of the round: others get what they have not sent in. */
    @MayRefuse({ProblemType.NOT_READY, ProblemType.ROUND_CLOSED})
    @PostMapping("/api/studies/{studyId}/round/take-out")
    TakingOutService.TakenOutView takeOut(
            @PathVariable StudyId studyId, @Valid @RequestBody TakingOutService.TakeOut request) {
        return record.of(studyId, () -> takingOut.takeOut(studyId, request));
    }

    /** What dealing sheets to a rater would come to, before it is done. */
    @MayRefuse({ProblemType.NOT_READY, ProblemType.ROUND_CLOSED})
    @PostMapping("/api/studies/{studyId}/round/deal/preview")
    DealingService.DealView preview(
            @PathVariable StudyId studyId, @Valid @RequestBody DealingService.DealSheets request) {
        return dealing.preview(studyId, request);
    }

    /** Deals sheets to a rater while the round is open. */
    @MayRefuse({ProblemType.NOT_READY, ProblemType.ROUND_CLOSED})
    @PostMapping("/api/studies/{studyId}/round/deal")
    DealingService.DealView deal(@PathVariable StudyId studyId, @Valid @RequestBody DealingService.DealSheets request) {
        return record.of(studyId, () -> dealing.deal(studyId, request));
    }
}
