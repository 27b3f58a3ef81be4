package org.mossbank.server.grading;

import jakarta.validation.Valid;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.acts.OnRecord;
import org.mossbank.server.grading.reminding.ReminderService;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.PromptId;
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
class GradingController {
    private final GradingService grading;
    private final ReminderService reminders;
    private final GradingBoard board;
    private final OnRecord record;

    GradingController(GradingService grading, ReminderService reminders, GradingBoard board, OnRecord record) {
        this.record = record;
        this.board = board;
        this.grading = grading;
        this.reminders = reminders;
    }

    /** How far grading is: sheets by rater, and the round. */
    @GetMapping("/api/studies/{studyId}/grading")
    GradingProgress progress(@PathVariable StudyId studyId) {
        return board.progress(studyId);
    }

    /** What raters gave the answers to a prompt. */
    @GetMapping("/api/studies/{studyId}/prompts/{promptId}/grades")
    PromptGrades ofPrompt(@PathVariable StudyId studyId, @PathVariable PromptId promptId) {
        return grading.ofPrompt(studyId, promptId);
    }

    /** Leaves a reminder for a rater. */
    @PostMapping("/api/studies/{studyId}/raters/{raterId}/reminders")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remind(
            @PathVariable StudyId studyId,
            @PathVariable AccountId raterId,
            @Valid @RequestBody ReminderService.Remind request) {
        reminders.remind(studyId, raterId, request);
    }

    /** Reminders that leads left for one. */
    @GetMapping("/api/reminders")
    List<ReminderService.ReminderView> reminders() {
        return reminders.mine();
    }

    /** Puts a reminder away. */
    @PostMapping("/api/reminders/{reminderId}/put-away")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void putAway(@PathVariable UUID reminderId) {
        reminders.putAway(reminderId);
    }

    /** Closes the round, with a reason. */
    @MayRefuse(ProblemType.NOT_READY)
    @PostMapping("/api/studies/{studyId}/round/close")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void close(@PathVariable StudyId studyId, @Valid @RequestBody GradingService.CloseRound request) {
        record.of(studyId, () -> grading.close(studyId, request));
        grading.tellOfEnd(studyId);
    }

    /** Opens the round again, with a reason. */
    @MayRefuse(ProblemType.NOT_READY)
    @PostMapping("/api/studies/{studyId}/round/reopen")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void reopen(@PathVariable StudyId studyId, @Valid @RequestBody GradingService.ReopenRound request) {
        record.of(studyId, () -> grading.reopen(studyId, request));
    }
}
