package org.mossbank.server.grading;

import jakarta.validation.Valid;
import java.util.List;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
class DeskController {
    private final DeskService desk;

    DeskController(DeskService desk) {
        this.desk = desk;
    }

    @GetMapping("/api/sheets")
    List<SheetSummary> mine() {
        return desk.mine();
    }

    @GetMapping("/api/sheets/{sheetId}")
    SheetView sheet(@PathVariable UUID sheetId) {
        return desk.sheet(sheetId);
    }

    @PutMapping("/api/sheets/{sheetId}/answers/{answerId}/grades/{criterionId}")
    SheetView.GradeOnSheet setGrade(
            @PathVariable UUID sheetId,
            @PathVariable UUID answerId,
            @PathVariable UUID criterionId,
            @Valid @RequestBody SetGrade request) {
        return desk.setGrade(sheetId, answerId, criterionId, request);
    }

    @PutMapping("/api/sheets/{sheetId}/answers/{answerId}/reason")
    DeskService.ReasonOnSheet setReason(
            @PathVariable UUID sheetId, @PathVariable UUID answerId, @Valid @RequestBody SetReason request) {
        return desk.setReason(sheetId, answerId, request);
    }

    @PostMapping("/api/sheets/{sheetId}/send")
    DeskService.Sent send(@PathVariable UUID sheetId) {
        return desk.send(sheetId);
    }

    @PostMapping("/api/sheets/{sheetId}/take-back")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void takeBack(@PathVariable UUID sheetId) {
        desk.takeBack(sheetId);
    }
}
