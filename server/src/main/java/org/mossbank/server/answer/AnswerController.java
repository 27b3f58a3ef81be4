package org.mossbank.server.answer;

import jakarta.validation.Valid;
import java.util.List;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.LargeBody;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@LargeBody(LargeBody.TEXTS)
@RequestMapping("/api/studies/{studyId}")
class AnswerController {
    private final AnswerService answers;
    private final FollowUpRules rules;
    private final AnswerReading reading;
    private final AnswerAdding adding;

    AnswerController(AnswerService answers, FollowUpRules rules, AnswerReading reading, AnswerAdding adding) {
        this.adding = adding;
        this.reading = reading;
        this.answers = answers;
        this.rules = rules;
    }

    @GetMapping("/answers")
    List<AnswerSummary> ofStudy(@PathVariable StudyId studyId) {
        return reading.ofStudy(studyId);
    }

    @GetMapping("/prompts/{promptId}/answers")
    List<AnswerView> ofPrompt(@PathVariable StudyId studyId, @PathVariable PromptId promptId) {
        return reading.ofPrompt(studyId, promptId);
    }

    @PostMapping("/answers")
    @ResponseStatus(HttpStatus.CREATED)
    AnswerView add(@PathVariable StudyId studyId, @Valid @RequestBody AnswerAdding.AddAnswer request) {
        return adding.add(studyId, request);
    }

    @PutMapping("/answers/{answerId}")
    AnswerView write(
            @PathVariable StudyId studyId,
            @PathVariable AnswerId answerId,
            @Valid @RequestBody AnswerService.WriteAnswer request) {
        return answers.write(studyId, answerId, request);
    }

    @GetMapping("/answers/{answerId}/changes")
    AnswerReading.ChangesOfAnswer changes(@PathVariable StudyId studyId, @PathVariable AnswerId answerId) {
        return reading.changes(studyId, answerId);
    }

    @GetMapping("/follow-up-rule")
    FollowUpRules.FollowUpRuleView rule(@PathVariable StudyId studyId) {
        return rules.ofStudy(studyId);
    }

    @PutMapping("/follow-up-rule")
    FollowUpRules.FollowUpRuleView write(
            @PathVariable StudyId studyId, @Valid @RequestBody FollowUpRules.WriteFollowUpRule request) {
        return rules.write(studyId, request);
    }

    @DeleteMapping("/answers/{answerId}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable StudyId studyId, @PathVariable AnswerId answerId) {
        answers.remove(studyId, answerId);
    }
}
