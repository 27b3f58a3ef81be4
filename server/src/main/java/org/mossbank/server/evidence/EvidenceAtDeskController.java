package org.mossbank.server.evidence;

import jakarta.validation.Valid;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.RepairId;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.shared.LargeBody;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.trial.RepairRequest;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/sheets/{sheetId}")
class EvidenceAtDeskController {
    private static final String REPAIRS = "/answers/{answerId}/repairs";

    private final DeskTrials trials;
    private final OwnInputs inputs;

    EvidenceAtDeskController(DeskTrials trials, OwnInputs inputs) {
        this.trials = trials;
        this.inputs = inputs;
    }

    /** What came of trying the answers on a sheet of one's own. */
    @MayRefuse({ProblemType.EXPECTATION_FIRST, ProblemType.REPEAT_OPEN, ProblemType.BUSY})
    @GetMapping("/trials")
    TrialsOnSheet trials(@PathVariable SheetId sheetId) {
        return trials.ofSheet(sheetId);
    }

    /** The files of an answer's code that may be changed so that it can be tried. */
    @MayRefuse({ProblemType.EXPECTATION_FIRST, ProblemType.REPEAT_OPEN, ProblemType.NOT_READY, ProblemType.TRIALS_OFF})
    @GetMapping("/answers/{answerId}/repairable")
    List<RepairRequest.ChangedFile> files(@PathVariable SheetId sheetId, @PathVariable SheetAnswerId answerId) {
        return trials.files(sheetId, answerId);
    }

    /** Tries an answer's code with files of it changed, and keeps what came of it; the answer stays as it is. */
    @LargeBody(LargeBody.TEXTS)
    @MayRefuse({
        ProblemType.EXPECTATION_FIRST,
        ProblemType.REPEAT_OPEN,
        ProblemType.NOT_READY,
        ProblemType.TRIALS_OFF,
        ProblemType.TOO_LARGE,
        ProblemType.BUSY
    })
    @PostMapping(REPAIRS)
    TrialsOnSheet.RepairTriedOnSheet repair(
            @PathVariable SheetId sheetId,
            @PathVariable SheetAnswerId answerId,
            @Valid @RequestBody RepairRequest request) {
        return trials.repair(sheetId, answerId, request);
    }

    /** What came of a repair, item by item, with its log. */
    @MayRefuse({ProblemType.EXPECTATION_FIRST, ProblemType.REPEAT_OPEN})
    @GetMapping(REPAIRS + "/{repairId}")
    TrialsOnSheet.ResultOnSheet repairResult(
            @PathVariable SheetId sheetId, @PathVariable SheetAnswerId answerId, @PathVariable RepairId repairId) {
        return trials.repairResult(sheetId, answerId, repairId);
    }

    /** A picture of the page of an answer on a sheet of one's own. */
    @MayRefuse({ProblemType.EXPECTATION_FIRST, ProblemType.REPEAT_OPEN, ProblemType.BUSY})
    @GetMapping(path = "/answers/{answerId}/pictures/{place}", produces = MediaType.IMAGE_PNG_VALUE)
    byte[] picture(@PathVariable SheetId sheetId, @PathVariable SheetAnswerId answerId, @PathVariable int place) {
        return trials.picture(sheetId, answerId, place);
    }

    /** A picture of the page of an answer as somebody repaired it. */
    @MayRefuse({ProblemType.EXPECTATION_FIRST, ProblemType.REPEAT_OPEN, ProblemType.BUSY})
    @GetMapping(path = REPAIRS + "/{repairId}/pictures/{place}", produces = MediaType.IMAGE_PNG_VALUE)
    byte[] repairPicture(
            @PathVariable SheetId sheetId,
            @PathVariable SheetAnswerId answerId,
            @PathVariable RepairId repairId,
            @PathVariable int place) {
        return trials.repairPicture(sheetId, answerId, repairId, place);
    }

    /** Inputs of one's own, with what programs did with them. */
    @MayRefuse({ProblemType.EXPECTATION_FIRST, ProblemType.REPEAT_OPEN, ProblemType.BUSY})
    @GetMapping("/inputs")
    List<OwnInputs.InputOnSheet> inputs(@PathVariable SheetId sheetId) {
        return inputs.ofSheet(sheetId);
    }

    /** Gives the programs of all answers an input of one's own; what each does with it is asked for by itself. */
    @MayRefuse({
        ProblemType.EXPECTATION_FIRST,
        ProblemType.REPEAT_OPEN,
        ProblemType.NOT_READY,
        ProblemType.TOO_MANY_INPUTS
    })
    @LargeBody(LargeBody.FORM)
    @PostMapping("/inputs")
    OwnInputs.InputOnSheet give(@PathVariable SheetId sheetId, @Valid @RequestBody OwnInputs.GiveInput request) {
        return inputs.give(sheetId, request);
    }

    /** What one answer's program does with an input of one's own. */
    @MayRefuse({
        ProblemType.EXPECTATION_FIRST,
        ProblemType.REPEAT_OPEN,
        ProblemType.NOT_READY,
        ProblemType.TRIALS_OFF,
        ProblemType.BUSY
    })
    @PutMapping("/inputs/{inputId}/answers/{answerId}")
    OwnInputs.EndOnSheet answering(
            @PathVariable SheetId sheetId, @PathVariable UUID inputId, @PathVariable SheetAnswerId answerId) {
        return inputs.answering(sheetId, inputId, answerId);
    }
}
