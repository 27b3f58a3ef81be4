package org.mossbank.server.answer;

import jakarta.validation.Valid;
import java.util.List;
import org.mossbank.server.answer.specimen.SpecimenView;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.LargeBody;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
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

    /** All answers of a study without their texts. */
    @GetMapping("/answers")
    List<AnswerSummary> ofStudy(@PathVariable StudyId studyId) {
        return reading.ofStudy(studyId);
    }

    /** The answers to a prompt with their texts. */
    @GetMapping("/prompts/{promptId}/answers")
    List<AnswerView> ofPrompt(@PathVariable StudyId studyId, @PathVariable PromptId promptId) {
        return reading.ofPrompt(studyId, promptId);
    }

    /** Answers that prompts brought out of the bank, for raters to calibrate by. */
    @GetMapping("/specimens")
    List<SpecimenView> specimens(@PathVariable StudyId studyId) {
        return reading.specimens(studyId);
    }

    /** Adds an answer by hand. */
    @MayRefuse(ProblemType.ROUND_OPENED)
    @PostMapping("/answers")
    @ResponseStatus(HttpStatus.CREATED)
    AnswerView add(@PathVariable StudyId studyId, @Valid @RequestBody AnswerAdding.AddAnswer request) {
        return adding.add(studyId, request);
    }

    /** Writes an answer while the study is being prepared. */
    @MayRefuse({ProblemType.CALIBRATING, ProblemType.ROUND_OPENED})
    @PutMapping("/answers/{answerId}")
    AnswerView write(
            @PathVariable StudyId studyId,
            @PathVariable AnswerId answerId,
            @Valid @RequestBody AnswerService.WriteAnswer request) {
        return answers.write(studyId, answerId, request);
    }

    /** What an answer changes in the starting code, file by file. */
    @GetMapping("/answers/{answerId}/changes")
    AnswerReading.ChangesOfAnswer changes(@PathVariable StudyId studyId, @PathVariable AnswerId answerId) {
        return reading.changes(studyId, answerId);
    }

    /** The most follow-ups that an answer may get, if there is a rule. */
    @GetMapping("/follow-up-rule")
    FollowUpRules.FollowUpRuleView rule(@PathVariable StudyId studyId) {
        return rules.ofStudy(studyId);
    }

    /** Sets the most follow-ups that an answer may get, or that there is no rule. */
    @MayRefuse(ProblemType.ROUND_OPENED)
    @PutMapping("/follow-up-rule")
    FollowUpRules.FollowUpRuleView write(
            @PathVariable StudyId studyId, @Valid @RequestBody FollowUpRules.WriteFollowUpRule request) {
        return rules.write(studyId, request);
    }

    /** Removes an answer while the study is being prepared. */
    @MayRefuse({ProblemType.CALIBRATING, ProblemType.ROUND_OPENED})
    @DeleteMapping("/answers/{answerId}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable StudyId studyId, @PathVariable AnswerId answerId) {
        answers.remove(studyId, answerId);
    }
}
