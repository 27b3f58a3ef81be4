package org.mossbank.server.cost;

import jakarta.validation.Valid;
import org.mossbank.server.candidate.TeamUse;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
class CostController {
    private final CostService costs;

    CostController(CostService costs) {
        this.costs = costs;
    }

    /** Quality against cost and time: what answers took, and what one that works came to; hidden while raters grade. */
    @MayRefuse({ProblemType.STANDINGS_HIDDEN, ProblemType.NOT_READY})
    @GetMapping("/api/studies/{studyId}/recommendation/costs")
    CostReport costs(@PathVariable StudyId studyId) {
        return costs.of(studyId);
    }

    /** What a month would cost the team, used as it is stated; hidden while raters grade. */
    @MayRefuse({ProblemType.STANDINGS_HIDDEN, ProblemType.NOT_READY})
    @GetMapping("/api/studies/{studyId}/recommendation/team-costs")
    TeamCostReport team(@PathVariable StudyId studyId) {
        return costs.team(studyId, null);
    }

    /** What a month would cost the team, used otherwise; keeps nothing. */
    @MayRefuse({ProblemType.STANDINGS_HIDDEN, ProblemType.NOT_READY})
    @PostMapping("/api/studies/{studyId}/recommendation/team-costs")
    TeamCostReport teamOf(@PathVariable StudyId studyId, @Valid @RequestBody TeamUse use) {
        return costs.team(studyId, use);
    }

    /** States how the team would use what it chooses; the memo prices it. */
    @PutMapping("/api/studies/{studyId}/stated-use")
    TeamCostReport.StatedUseView state(@PathVariable StudyId studyId, @Valid @RequestBody TeamUse use) {
        return costs.state(studyId, use);
    }

    /** Takes the stated use back. */
    @DeleteMapping("/api/studies/{studyId}/stated-use")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void takeBack(@PathVariable StudyId studyId) {
        costs.takeBack(studyId);
    }
}
