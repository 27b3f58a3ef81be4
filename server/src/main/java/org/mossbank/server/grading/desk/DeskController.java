package org.mossbank.server.grading.desk;

import io.micrometer.core.instrument.Counter;
import io.micrometer.core.instrument.MeterRegistry;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.answer.CodeView;
import org.mossbank.server.answer.FileChangeView;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
class DeskController {
    private static final String SHEET = "/api/sheets/{sheetId}";
    private static final String ANSWER = SHEET + "/answers/{answerId}";

    private final DeskService desk;
    private final OwnSheets own;
    private final CodeService code;
    private final DeskWork work;
    private final DeskRemarks remarks;
    private final SheetSending sending;
    private final Counter acknowledged;

    DeskController(
            DeskService desk,
            OwnSheets own,
            CodeService code,
            DeskWork work,
            DeskRemarks remarks,
            SheetSending sending,
            MeterRegistry meters) {
        acknowledged = Counter.builder("mossbank.grades.acknowledged")
                .description("Grades of one answer on one criterion that were saved")
                .register(meters);
        this.desk = desk;
        this.own = own;
        this.code = code;
        this.work = work;
        this.remarks = remarks;
        this.sending = sending;
    }

    /**
     * One's own sheets, in their order.
     *
     * @param earlier which twenty of the studies whose round is closed, from 0, those that closed last first; those whose round is
     *                open come with the first
     */
    @GetMapping("/api/sheets")
    List<SheetSummary> mine(@RequestParam(defaultValue = "0") @Min(0) @Max(10_000) int earlier) {
        return own.mine(earlier);
    }

    /** A sheet of one's own with its prompt, its answers and what stands on it. */
    @MayRefuse({ProblemType.EXPECTATION_FIRST, ProblemType.REPEAT_OPEN})
    @GetMapping(SHEET)
    SheetView sheet(@PathVariable SheetId sheetId) {
        return desk.sheet(sheetId);
    }

    /** What an answer changes in the starting code, as raters may see it. */
    @GetMapping(ANSWER + "/code")
    CodeView code(@PathVariable SheetId sheetId, @PathVariable SheetAnswerId answerId) {
        return code.code(sheetId, answerId);
    }

    /** Where two answers on a sheet differ, line by line. */
    @GetMapping(SHEET + "/comparison")
    List<FileChangeView> comparison(
            @PathVariable SheetId sheetId, @RequestParam SheetAnswerId first, @RequestParam SheetAnswerId second) {
        return code.comparison(sheetId, first, second);
    }

    /** Grades an answer on a criterion. */
    @MayRefuse({
        ProblemType.CHANGED_ELSEWHERE,
        ProblemType.EXPECTATION_FIRST,
        ProblemType.ROUND_CLOSED,
        ProblemType.SHEET_SENT,
        ProblemType.SHEET_WITHDRAWN
    })
    @PutMapping(ANSWER + "/grades/{criterionId}")
    SheetView.Saved setGrade(
            @PathVariable SheetId sheetId,
            @PathVariable SheetAnswerId answerId,
            @PathVariable CriterionId criterionId,
            @Valid @RequestBody DeskRequests.SetGrade request) {
        SheetView.Saved saved = work.setGrade(sheetId, answerId, criterionId, request);
        acknowledged.increment();
        return saved;
    }

    /** Gives the reason for an answer's grades. */
    @MayRefuse({
        ProblemType.EXPECTATION_FIRST,
        ProblemType.ROUND_CLOSED,
        ProblemType.SHEET_SENT,
        ProblemType.SHEET_WITHDRAWN
    })
    @PutMapping(ANSWER + "/reason")
    SheetView.Saved setReason(
            @PathVariable SheetId sheetId,
            @PathVariable SheetAnswerId answerId,
            @Valid @RequestBody DeskRequests.SetReason request) {
        return work.setReason(sheetId, answerId, request);
    }

    /** Says whether an answer's code works. */
    @MayRefuse({
        ProblemType.EXPECTATION_FIRST,
        ProblemType.ROUND_CLOSED,
        ProblemType.SHEET_SENT,
        ProblemType.SHEET_WITHDRAWN
    })
    @PutMapping(ANSWER + "/works")
    SheetView.Saved setWorks(
            @PathVariable SheetId sheetId,
            @PathVariable SheetAnswerId answerId,
            @Valid @RequestBody DeskRequests.SetWorks request) {
        return work.setWorks(sheetId, answerId, request);
    }

    /** Sets an answer's place in the order of preference. */
    @MayRefuse({
        ProblemType.EXPECTATION_FIRST,
        ProblemType.ROUND_CLOSED,
        ProblemType.SHEET_SENT,
        ProblemType.SHEET_WITHDRAWN
    })
    @PutMapping(ANSWER + "/preference")
    SheetView.Saved setPreference(
            @PathVariable SheetId sheetId,
            @PathVariable SheetAnswerId answerId,
            @Valid @RequestBody DeskRequests.SetPreference request) {
        return work.setPreference(sheetId, answerId, request);
    }

    /** Says how far an answer holds a key point. */
    @MayRefuse({
        ProblemType.EXPECTATION_FIRST,
        ProblemType.ROUND_CLOSED,
        ProblemType.SHEET_SENT,
        ProblemType.SHEET_WITHDRAWN
    })
    @PutMapping(ANSWER + "/coverage/{point}")
    SheetView.Saved setCoverage(
            @PathVariable SheetId sheetId,
            @PathVariable SheetAnswerId answerId,
            @PathVariable int point,
            @Valid @RequestBody DeskRequests.SetCoverage request) {
        return work.setCoverage(sheetId, answerId, point, request);
    }

    /** Writes, changes or removes a remark on an answer. */
    @MayRefuse({
        ProblemType.EXPECTATION_FIRST,
        ProblemType.ROUND_CLOSED,
        ProblemType.SHEET_SENT,
        ProblemType.SHEET_WITHDRAWN
    })
    @PutMapping(ANSWER + "/remarks/{remarkId}")
    SheetView.Saved setRemark(
            @PathVariable SheetId sheetId,
            @PathVariable SheetAnswerId answerId,
            @PathVariable UUID remarkId,
            @Valid @RequestBody DeskRequests.SetRemark request) {
        return remarks.setRemark(sheetId, answerId, remarkId, request);
    }

    /** Guesses who wrote an answer, once the sheet is sent in. */
    @MayRefuse({
        ProblemType.EXPECTATION_FIRST,
        ProblemType.NOT_READY,
        ProblemType.ROUND_CLOSED,
        ProblemType.SHEET_SENT,
        ProblemType.SHEET_WITHDRAWN
    })
    @PutMapping(ANSWER + "/guess")
    SheetView.Saved setGuess(
            @PathVariable SheetId sheetId,
            @PathVariable SheetAnswerId answerId,
            @Valid @RequestBody DeskRequests.SetGuess request) {
        return work.setGuess(sheetId, answerId, request);
    }

    /** Adds to the time that one has looked at answers. */
    @MayRefuse({
        ProblemType.EXPECTATION_FIRST,
        ProblemType.ROUND_CLOSED,
        ProblemType.SHEET_SENT,
        ProblemType.SHEET_WITHDRAWN
    })
    @PutMapping(SHEET + "/time")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void tellTime(@PathVariable SheetId sheetId, @Valid @RequestBody DeskRequests.TellTime request) {
        work.tellTime(sheetId, request);
    }

    /** Sends a sheet in. */
    @MayRefuse({
        ProblemType.EXPECTATION_FIRST,
        ProblemType.ROUND_CLOSED,
        ProblemType.SHEET_INCOMPLETE,
        ProblemType.SHEET_SENT,
        ProblemType.SHEET_WITHDRAWN
    })
    @PostMapping(SHEET + "/send")
    SheetSending.Sent send(@PathVariable SheetId sheetId) {
        return sending.send(sheetId);
    }

    /** Takes a sheet back that was sent in by mistake. */
    @MayRefuse({
        ProblemType.EXPECTATION_FIRST,
        ProblemType.REPEAT_OPEN,
        ProblemType.ROUND_CLOSED,
        ProblemType.SHEET_SENT,
        ProblemType.SHEET_WITHDRAWN,
        ProblemType.TOO_LATE
    })
    @PostMapping(SHEET + "/take-back")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void takeBack(@PathVariable SheetId sheetId) {
        sending.takeBack(sheetId);
    }
}
