package org.mossbank.server.grouping;

import org.mossbank.server.figures.FiguresOf;
import org.mossbank.server.figures.KeptFigures;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.recommendation.Recommendations;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;

/** Standings group by group, once grading has ended; kept by the revision of the grades. */
@Service
class GroupingService {
    private static final FiguresOf<GroupingReport> GROUPS = new FiguresOf<>("groups", GroupingReport.class);

    private final GroupingComputation computation;
    private final Recommendations recommendations;
    private final Grading grading;
    private final KeptFigures kept;

    GroupingService(
            GroupingComputation computation, Recommendations recommendations, Grading grading, KeptFigures kept) {
        this.computation = computation;
        this.recommendations = recommendations;
        this.grading = grading;
        this.kept = kept;
    }

    /** @throws org.mossbank.server.shared.Problem 409 before grading has ended */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public GroupingReport of(StudyId study) {
        recommendations.requireEnded(study);
        long revision = grading.round(study).orElseThrow().revision();
        return kept.of(GROUPS, study, revision, () -> computation.of(study));
    }
}
