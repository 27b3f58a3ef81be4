package org.mossbank.server.prompt;

import jakarta.validation.Valid;
import java.io.IOException;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.shared.LargeBody;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;

/** Where prompts and their starting code come from: the team's bank, a zip, a git repository. */
@RestController
@LargeBody(LargeBody.FORM)
class PromptSourceController {
    private final StartingCodeService code;
    private final BankService bank;

    PromptSourceController(StartingCodeService code, BankService bank) {
        this.code = code;
        this.bank = bank;
    }

    @PostMapping(path = "/api/studies/{studyId}/starting-code/zip", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    StartingCodeService.TakenCode zip(@PathVariable UUID studyId, @RequestParam MultipartFile file) throws IOException {
        return code.fromZip(studyId, file.getInputStream());
    }

    @PostMapping("/api/studies/{studyId}/starting-code/git/listing")
    StartingCodeService.GitListing listGit(
            @PathVariable UUID studyId, @Valid @RequestBody StartingCodeService.GitPlace place) {
        return code.listGit(studyId, place);
    }

    @PostMapping("/api/studies/{studyId}/starting-code/git")
    StartingCodeService.GitCode git(
            @PathVariable UUID studyId, @Valid @RequestBody StartingCodeService.GitFiles request) {
        return code.fromGit(studyId, request);
    }

    @GetMapping("/api/bank")
    List<BankService.BankEntry> all() {
        return bank.all();
    }

    @GetMapping("/api/bank/{bankPromptId}")
    BankService.BankPromptView one(@PathVariable UUID bankPromptId) {
        return bank.one(bankPromptId);
    }

    @PostMapping("/api/studies/{studyId}/prompts/{promptId}/keep")
    PromptView keep(@PathVariable UUID studyId, @PathVariable UUID promptId) {
        return bank.keep(studyId, promptId);
    }

    @PostMapping("/api/studies/{studyId}/prompts/from-bank")
    @ResponseStatus(HttpStatus.CREATED)
    PromptView take(@PathVariable UUID studyId, @Valid @RequestBody BankService.TakeFromBank request) {
        return bank.take(studyId, request);
    }
}
