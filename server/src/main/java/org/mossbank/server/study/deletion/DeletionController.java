package org.mossbank.server.study.deletion;

import jakarta.validation.Valid;
import java.util.List;
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
class DeletionController {
    private final DeletionService deletions;

    DeletionController(DeletionService deletions) {
        this.deletions = deletions;
    }

    /** Deletes a study: nobody sees it from then on; for thirty days its leads can undo it. */
    @MayRefuse(ProblemType.PROOF_NEEDED)
    @PostMapping("/api/studies/{studyId}/deletion")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void delete(@PathVariable StudyId studyId, @Valid @RequestBody DeletionService.DeleteStudy request) {
        deletions.delete(studyId, request);
    }

    /** Studies of one's own that stand deleted, and when each goes for good. */
    @GetMapping("/api/deleted-studies")
    List<DeletionService.DeletedStudy> own() {
        return deletions.own();
    }

    /** Brings back a study that stands deleted, with all who belonged to it. */
    @PostMapping("/api/deleted-studies/{studyId}/undo")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void undo(@PathVariable StudyId studyId) {
        deletions.undo(studyId);
    }
}
