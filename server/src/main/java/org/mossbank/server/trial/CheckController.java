package org.mossbank.server.trial;

import jakarta.validation.Valid;
import java.util.List;
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
@LargeBody(LargeBody.FORM)
@RequestMapping("/api/studies/{studyId}")
class CheckController {
    private final CheckService checks;

    CheckController(CheckService checks) {
        this.checks = checks;
    }

    /** The toolchains that this server offers for trials, with what a check by each begins with. */
    @GetMapping("/toolchains")
    ToolchainsView toolchains(@PathVariable StudyId studyId) {
        return checks.toolchains(studyId);
    }

    /** The checks of a study's prompts. */
    @GetMapping("/checks")
    List<CheckService.CheckOfPrompt> ofStudy(@PathVariable StudyId studyId) {
        return checks.ofStudy(studyId);
    }

    /** Writes what a prompt asks of an answer's code. */
    @MayRefuse(ProblemType.ROUND_OPENED)
    @PutMapping("/prompts/{promptId}/check")
    CheckService.CheckOfPrompt write(
            @PathVariable StudyId studyId,
            @PathVariable PromptId promptId,
            @Valid @RequestBody CheckService.WriteCheck request) {
        return checks.write(studyId, promptId, request);
    }

    /** Takes the check of a prompt away, with the trials by it. */
    @MayRefuse(ProblemType.ROUND_OPENED)
    @DeleteMapping("/prompts/{promptId}/check")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable StudyId studyId, @PathVariable PromptId promptId) {
        checks.remove(studyId, promptId);
    }

    /** Tries a check on the starting code, the reference answer or an answer; of a saved one it is kept whether it can be trusted. */
    @MayRefuse({ProblemType.TRIALS_OFF, ProblemType.BUSY, ProblemType.STARTING_CODE_REFUSED})
    @PostMapping("/prompts/{promptId}/check/try")
    CheckService.TriedCheck tried(
            @PathVariable StudyId studyId,
            @PathVariable PromptId promptId,
            @Valid @RequestBody CheckService.TryCheck request) {
        return checks.tried(studyId, promptId, request);
    }
}
