package org.mossbank.server.startingcode;

import jakarta.validation.Valid;
import java.io.IOException;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.LargeBody;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;

/** Starting code from a file or a repository. */
@RestController
@LargeBody(LargeBody.FORM)
class StartingCodeController {
    private final StartingCodeService code;

    StartingCodeController(StartingCodeService code) {
        this.code = code;
    }

    /** Takes starting code from a zip. */
    @MayRefuse(ProblemType.STARTING_CODE_REFUSED)
    @PostMapping(path = "/api/studies/{studyId}/starting-code/zip", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    StartingCodeService.TakenCode zip(@PathVariable StudyId studyId, @RequestParam MultipartFile file)
            throws IOException {
        return code.fromZip(studyId, file.getInputStream());
    }

    /** Lists the files of a repository at a commit. */
    @MayRefuse(ProblemType.STARTING_CODE_REFUSED)
    @PostMapping("/api/studies/{studyId}/starting-code/git/listing")
    StartingCodeService.GitListing listGit(
            @PathVariable StudyId studyId, @Valid @RequestBody StartingCodeService.GitPlace place) {
        return code.listGit(studyId, place);
    }

    /** Takes starting code from a repository at a commit. */
    @MayRefuse(ProblemType.STARTING_CODE_REFUSED)
    @PostMapping("/api/studies/{studyId}/starting-code/git")
    StartingCodeService.GitCode git(
            @PathVariable StudyId studyId, @Valid @RequestBody StartingCodeService.GitFiles request) {
        return code.fromGit(studyId, request);
    }
}
