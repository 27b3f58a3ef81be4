package org.mossbank.server.source;

import jakarta.validation.Valid;
import org.mossbank.server.ids.CandidateId;
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
@RequestMapping("/api/studies/{studyId}/sources")
class SourceController {
    private final SourceService sources;

    SourceController(SourceService sources) {
        this.sources = sources;
    }

    /** Where candidates are asked. */
    @GetMapping
    SourceService.SourcesView ofStudy(@PathVariable StudyId studyId) {
        return sources.ofStudy(studyId);
    }

    /** Writes where and how a candidate is asked. */
    @MayRefuse(ProblemType.ROUND_OPENED)
    @PutMapping("/{candidateId}")
    SourceService.SourceView write(
            @PathVariable StudyId studyId,
            @PathVariable CandidateId candidateId,
            @Valid @RequestBody SourceService.WriteSource request) {
        return sources.write(studyId, candidateId, request);
    }

    /** Removes a candidate's source. */
    @MayRefuse(ProblemType.ROUND_OPENED)
    @DeleteMapping("/{candidateId}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable StudyId studyId, @PathVariable CandidateId candidateId) {
        sources.remove(studyId, candidateId);
    }

    /** Asks a source once, and keeps nothing. */
    @MayRefuse(ProblemType.SECRETS_FOUND)
    @PostMapping("/{candidateId}/try-out")
    SourceService.TryOutView tryOut(
            @PathVariable StudyId studyId,
            @PathVariable CandidateId candidateId,
            @Valid @RequestBody SourceService.TrySource request) {
        return sources.tryOut(studyId, candidateId, request);
    }
}
