package org.mossbank.server.secret;

import jakarta.validation.Valid;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/studies/{studyId}/secrets")
class SecretController {
    private final SecretService secrets;

    SecretController(SecretService secrets) {
        this.secrets = secrets;
    }

    /** What looks like a secret in what candidates are sent. */
    @MayRefuse(ProblemType.BUSY)
    @GetMapping
    SecretsView ofStudy(@PathVariable StudyId studyId) {
        return secrets.ofStudy(studyId);
    }

    /** Says that something that looks like a secret may be sent. */
    @MayRefuse(ProblemType.BUSY)
    @PutMapping("/{digest}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void clear(
            @PathVariable StudyId studyId,
            @PathVariable String digest,
            @Valid @RequestBody SecretService.ClearSecret request) {
        secrets.clear(studyId, digest, request);
    }

    /** Holds back again what looks like a secret. */
    @DeleteMapping("/{digest}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void hold(@PathVariable StudyId studyId, @PathVariable String digest) {
        secrets.hold(studyId, digest);
    }
}
