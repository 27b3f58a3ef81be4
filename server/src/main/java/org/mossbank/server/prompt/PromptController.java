package org.mossbank.server.prompt;

import jakarta.validation.Valid;
import java.util.List;
import org.mossbank.server.acts.OnRecord;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.check.PromptChecks;
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
class PromptController {
    private final PromptService prompts;
    private final KindService kinds;
    private final PromptChecks checks;
    private final PromptFaults faults;
    private final OnRecord record;

    PromptController(
            PromptService prompts, KindService kinds, PromptChecks checks, PromptFaults faults, OnRecord record) {
        this.record = record;
        this.faults = faults;
        this.checks = checks;
        this.prompts = prompts;
        this.kinds = kinds;
    }

    /** Prompts with their content. */
    @GetMapping("/prompts")
    List<PromptView> ofStudy(@PathVariable StudyId studyId) {
        return prompts.ofStudy(studyId);
    }

    /** Keys, titles and kinds of prompts, without their content. */
    @GetMapping("/prompts/titles")
    List<PromptService.PromptTitle> titles(@PathVariable StudyId studyId) {
        return prompts.titles(studyId);
    }

    /** What may be unclear in prompts' wording. */
    @GetMapping("/prompts/warnings")
    List<PromptChecks.PromptWarnings> warnings(@PathVariable StudyId studyId) {
        return checks.warnings(studyId);
    }

    /** Adds a prompt. */
    @MayRefuse(ProblemType.ROUND_OPENED)
    @PostMapping("/prompts")
    @ResponseStatus(HttpStatus.CREATED)
    PromptView add(@PathVariable StudyId studyId, @Valid @RequestBody PromptService.AddPrompt request) {
        return prompts.add(studyId, request);
    }

    /** Writes a prompt. */
    @MayRefuse({ProblemType.CALIBRATING, ProblemType.ROUND_OPENED})
    @PutMapping("/prompts/{promptId}")
    PromptView write(
            @PathVariable StudyId studyId,
            @PathVariable PromptId promptId,
            @Valid @RequestBody PromptService.WritePrompt request) {
        return prompts.write(studyId, promptId, request);
    }

    /** Removes a prompt that has no answers. */
    @MayRefuse({ProblemType.CALIBRATING, ProblemType.HAS_ANSWERS, ProblemType.NOT_READY, ProblemType.ROUND_OPENED})
    @DeleteMapping("/prompts/{promptId}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable StudyId studyId, @PathVariable PromptId promptId) {
        prompts.remove(studyId, promptId);
    }

    /** Adds another wording of a prompt. */
    @MayRefuse(ProblemType.ROUND_OPENED)
    @PostMapping("/prompts/{promptId}/variants")
    @ResponseStatus(HttpStatus.CREATED)
    PromptView addVariant(
            @PathVariable StudyId studyId,
            @PathVariable PromptId promptId,
            @Valid @RequestBody PromptService.AddVariant request) {
        return prompts.addVariant(studyId, promptId, request);
    }

    /** Sets a prompt aside with a reason: it counts nowhere then. */
    @MayRefuse(ProblemType.ROUND_CLOSED)
    @PutMapping("/prompts/{promptId}/fault")
    PromptService.PromptTitle setAside(
            @PathVariable StudyId studyId,
            @PathVariable PromptId promptId,
            @Valid @RequestBody PromptFaults.FaultReason request) {
        return record.of(studyId, () -> faults.setAside(studyId, promptId, request));
    }

    /** Counts a prompt again, with a reason. */
    @MayRefuse(ProblemType.ROUND_CLOSED)
    @PostMapping("/prompts/{promptId}/fault/take-back")
    PromptService.PromptTitle takeUp(
            @PathVariable StudyId studyId,
            @PathVariable PromptId promptId,
            @Valid @RequestBody PromptFaults.FaultReason request) {
        return record.of(studyId, () -> faults.takeUp(studyId, promptId, request));
    }

    /** Kinds of prompts. */
    @GetMapping("/kinds")
    List<KindView> kinds(@PathVariable StudyId studyId) {
        return kinds.ofStudy(studyId);
    }

    /** Adds a kind of prompt. */
    @MayRefuse(ProblemType.ROUND_OPENED)
    @PostMapping("/kinds")
    @ResponseStatus(HttpStatus.CREATED)
    KindView addKind(@PathVariable StudyId studyId, @Valid @RequestBody KindService.AddKind request) {
        return kinds.add(studyId, request);
    }

    /** Removes a kind that no prompt is of. */
    @MayRefuse({ProblemType.NOT_READY, ProblemType.ROUND_OPENED})
    @DeleteMapping("/kinds/{kindId}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void removeKind(@PathVariable StudyId studyId, @PathVariable KindId kindId) {
        kinds.remove(studyId, kindId);
    }
}
