package org.mossbank.server.grouping;

import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

@RestController
class GroupingController {
    private final GroupingService groups;

    GroupingController(GroupingService groups) {
        this.groups = groups;
    }

    /** Where candidates stand among prompts of one kind, size, area, language or wording; hidden while raters grade. */
    @MayRefuse({ProblemType.STANDINGS_HIDDEN, ProblemType.NOT_READY})
    @GetMapping("/api/studies/{studyId}/recommendation/groups")
    GroupingReport groups(@PathVariable StudyId studyId) {
        return groups.of(studyId);
    }
}
