package org.mossbank.server.candidate;

import jakarta.validation.Valid;
import java.util.List;
import org.mossbank.server.acts.OnRecord;
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
@RequestMapping("/api/studies/{studyId}/candidates")
class CandidateController {
    private final CandidateService candidates;
    private final OnRecord record;

    CandidateController(CandidateService candidates, OnRecord record) {
        this.record = record;
        this.candidates = candidates;
    }

    /** Candidates with their settings, prices and considerations. */
    @GetMapping
    List<CandidateView> ofStudy(@PathVariable StudyId studyId) {
        return candidates.ofStudy(studyId);
    }

    /** In what candidates' settings are unlike. */
    @GetMapping("/unlike")
    List<CandidateService.Unlike> unlike(@PathVariable StudyId studyId) {
        return candidates.unlike(studyId);
    }

    /** Adds a candidate. */
    @MayRefuse(ProblemType.ROUND_OPENED)
    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    CandidateView add(@PathVariable StudyId studyId, @Valid @RequestBody CandidateService.AddCandidate request) {
        return candidates.add(studyId, request);
    }

    /** Writes a candidate. */
    @MayRefuse(ProblemType.ROUND_OPENED)
    @PutMapping("/{candidateId}")
    CandidateView write(
            @PathVariable StudyId studyId,
            @PathVariable CandidateId candidateId,
            @Valid @RequestBody CandidateService.WriteCandidate request) {
        return candidates.write(studyId, candidateId, request);
    }

    /** Writes what speaks for a candidate, against it, or rules it out. */
    @MayRefuse(ProblemType.ROUND_CLOSED)
    @PutMapping("/{candidateId}/considerations")
    CandidateView consider(
            @PathVariable StudyId studyId,
            @PathVariable CandidateId candidateId,
            @Valid @RequestBody CandidateService.Consider request) {
        return record.of(studyId, () -> candidates.consider(studyId, candidateId, request));
    }

    /** Removes a candidate that has no answers. */
    @MayRefuse({ProblemType.HAS_ANSWERS, ProblemType.ROUND_OPENED})
    @DeleteMapping("/{candidateId}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable StudyId studyId, @PathVariable CandidateId candidateId) {
        candidates.remove(studyId, candidateId);
    }
}
