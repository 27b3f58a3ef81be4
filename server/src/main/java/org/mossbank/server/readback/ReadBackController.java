package org.mossbank.server.readback;

import jakarta.validation.Valid;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
class ReadBackController {
    private final ReadBackService readBacks;

    ReadBackController(ReadBackService readBacks) {
        this.readBacks = readBacks;
    }

    /** Prompts in readers' own words, with what the lead made of them. */
    @GetMapping("/api/studies/{studyId}/read-backs")
    List<ReadBackService.ReadBackView> ofStudy(@PathVariable StudyId studyId) {
        return readBacks.ofStudy(studyId);
    }

    /** Asks somebody to say in their own words what a prompt asks for. */
    @MayRefuse(ProblemType.ROUND_OPENED)
    @PostMapping("/api/studies/{studyId}/prompts/{promptId}/read-backs")
    @ResponseStatus(HttpStatus.CREATED)
    ReadBackService.ReadBackView ask(
            @PathVariable StudyId studyId,
            @PathVariable PromptId promptId,
            @Valid @RequestBody ReadBackService.AskReader request) {
        return readBacks.ask(studyId, promptId, request);
    }

    /** Says whether a reader understood a prompt. */
    @PutMapping("/api/studies/{studyId}/read-backs/{readBackId}/verdict")
    ReadBackService.ReadBackView judge(
            @PathVariable StudyId studyId,
            @PathVariable UUID readBackId,
            @Valid @RequestBody ReadBackService.JudgeReading request) {
        return readBacks.judge(studyId, readBackId, request);
    }

    /** Prompts that one is asked to say in one's own words. */
    @GetMapping("/api/read-backs")
    List<ReadBackService.Reading> mine() {
        return readBacks.mine();
    }

    /** Says what a prompt asks for, in one's own words. */
    @PutMapping("/api/read-backs/{readBackId}")
    ReadBackService.Reading answer(@PathVariable UUID readBackId, @Valid @RequestBody ReadBackService.SayBack request) {
        return readBacks.answer(readBackId, request);
    }
}
