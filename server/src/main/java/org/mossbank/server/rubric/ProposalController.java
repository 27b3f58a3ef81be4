package org.mossbank.server.rubric;

import jakarta.validation.Valid;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/studies/{studyId}/rubric/proposals")
class ProposalController {
    private final ProposalService proposals;

    ProposalController(ProposalService proposals) {
        this.proposals = proposals;
    }

    /** Proposals for anchors, oldest first. */
    @GetMapping
    List<ProposalView> ofStudy(@PathVariable StudyId studyId) {
        return proposals.ofStudy(studyId);
    }

    /** Proposes another wording of an anchor. */
    @MayRefuse(ProblemType.TOO_LATE)
    @PostMapping
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void propose(@PathVariable StudyId studyId, @Valid @RequestBody ProposalService.ProposeAnchor request) {
        proposals.propose(studyId, request);
    }

    /** Takes a proposal into the draft of the rubric's next version. */
    @MayRefuse(ProblemType.NOT_READY)
    @PostMapping("/{proposalId}/take")
    List<ProposalView> take(
            @PathVariable StudyId studyId,
            @PathVariable UUID proposalId,
            @Valid @RequestBody ProposalService.TakeProposal request) {
        return proposals.take(studyId, proposalId, request);
    }

    /** Declines a proposal. */
    @MayRefuse(ProblemType.NOT_READY)
    @PostMapping("/{proposalId}/decline")
    List<ProposalView> decline(@PathVariable StudyId studyId, @PathVariable UUID proposalId) {
        return proposals.decline(studyId, proposalId);
    }
}
