package org.mossbank.server.grading;

import jakarta.validation.Valid;
import java.util.List;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
class GradingController {
    private final GradingService grading;
    private final KeepingService keeping;
    private final ReminderService reminders;

    GradingController(GradingService grading, KeepingService keeping, ReminderService reminders) {
        this.grading = grading;
        this.keeping = keeping;
        this.reminders = reminders;
    }

    @GetMapping("/api/studies/{studyId}/grading")
    GradingProgress progress(@PathVariable UUID studyId) {
        return grading.progress(studyId);
    }

    @GetMapping("/api/studies/{studyId}/prompts/{promptId}/grades")
    PromptGrades ofPrompt(@PathVariable UUID studyId, @PathVariable UUID promptId) {
        return grading.ofPrompt(studyId, promptId);
    }

    @PostMapping("/api/studies/{studyId}/sheets/{sheetId}/withdraw")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void withdraw(@PathVariable UUID studyId, @PathVariable UUID sheetId, @Valid @RequestBody Withdraw request) {
        keeping.withdraw(studyId, sheetId, request);
    }

    @PostMapping("/api/studies/{studyId}/sheets/{sheetId}/give-back")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void giveBack(@PathVariable UUID studyId, @PathVariable UUID sheetId) {
        keeping.giveBack(studyId, sheetId);
    }

    @PostMapping("/api/studies/{studyId}/sheets/{sheetId}/hand-over")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void handOver(
            @PathVariable UUID studyId,
            @PathVariable UUID sheetId,
            @Valid @RequestBody KeepingService.HandOver request) {
        keeping.handOver(studyId, sheetId, request);
    }

    @PostMapping("/api/studies/{studyId}/raters/{raterId}/reminders")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remind(
            @PathVariable UUID studyId,
            @PathVariable UUID raterId,
            @Valid @RequestBody ReminderService.Remind request) {
        reminders.remind(studyId, raterId, request);
    }

    @GetMapping("/api/reminders")
    List<ReminderService.ReminderView> reminders() {
        return reminders.mine();
    }

    @PostMapping("/api/reminders/{reminderId}/put-away")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void putAway(@PathVariable UUID reminderId) {
        reminders.putAway(reminderId);
    }

    @PostMapping("/api/studies/{studyId}/round/close")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void close(@PathVariable UUID studyId) {
        grading.close(studyId);
    }
}
