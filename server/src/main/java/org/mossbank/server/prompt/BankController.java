package org.mossbank.server.prompt;

import jakarta.validation.Valid;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.LargeBody;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The team's bank of prompts. */
@RestController
@LargeBody(LargeBody.FORM)
class BankController {
    private final BankService bank;

    BankController(BankService bank) {
        this.bank = bank;
    }

    /** One's kept prompts. */
    @GetMapping("/api/bank")
    List<BankService.BankEntry> all() {
        return bank.all();
    }

    /** A kept prompt, with its versions and where it was used. */
    @GetMapping("/api/bank/{bankPromptId}")
    BankService.BankPromptView one(@PathVariable UUID bankPromptId) {
        return bank.one(bankPromptId);
    }

    /** Keeps a prompt in the bank. */
    @PostMapping("/api/studies/{studyId}/prompts/{promptId}/keep")
    PromptView keep(@PathVariable StudyId studyId, @PathVariable PromptId promptId) {
        return bank.keep(studyId, promptId);
    }

    /** Takes kept prompts into a study. */
    @PostMapping("/api/studies/{studyId}/prompts/from-bank")
    @ResponseStatus(HttpStatus.CREATED)
    PromptView take(@PathVariable StudyId studyId, @Valid @RequestBody BankService.TakeFromBank request) {
        return bank.take(studyId, request);
    }
}
