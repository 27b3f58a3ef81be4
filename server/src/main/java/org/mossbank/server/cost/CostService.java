package org.mossbank.server.cost;

import jakarta.persistence.EntityManager;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.account.Actor;
import org.mossbank.server.candidate.TeamUse;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.recommendation.Recommendations;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.study.Studies;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Quality against what it takes, once grading has ended. */
@Service
class CostService {
    /** What is asked about where nothing is stated: one person, ten tasks a day. */
    private static final TeamUse ONE_PERSON = new TeamUse(1, 10, 21);

    private final Costs costs;
    private final Recommendations recommendations;
    private final StatedUseRepository uses;
    private final Studies studies;
    private final EntityManager entities;
    private final Actor actor;

    CostService(
            Costs costs,
            Recommendations recommendations,
            StatedUseRepository uses,
            Studies studies,
            EntityManager entities,
            Actor actor) {
        this.costs = costs;
        this.recommendations = recommendations;
        this.uses = uses;
        this.studies = studies;
        this.entities = entities;
        this.actor = actor;
    }

    /** @throws Problem 409 before grading has ended */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public CostReport of(StudyId study) {
        recommendations.requireEnded(study);
        return costs.ofStudy(study);
    }

    /**
     * @param asked absent for the use that is stated
     * @throws Problem 409 before grading has ended
     */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public TeamCostReport team(StudyId study, @Nullable TeamUse asked) {
        recommendations.requireEnded(study);
        Optional<TeamCostReport.StatedUseView> stated = costs.statedUse(study);
        TeamUse use = asked != null
                ? asked
                : stated.map(TeamCostReport.StatedUseView::use).orElse(ONE_PERSON);
        return costs.team(study, use, stated.orElse(null));
    }

    /** Keeps a use with the study; the memo prices it. Decides nothing, so it may be stated at any time. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public TeamCostReport.StatedUseView state(StudyId study, TeamUse use) {
        studies.holdFor(study);
        StatedUse kept = uses.findById(study).orElse(null);
        if (kept == null) {
            kept = StatedUse.of(study, new TeamCostReport.StatedUseView(use, actor.now(), actor.name()));
            entities.persist(kept);
        } else {
            kept.state(use, actor.now(), actor.name());
        }
        return kept.view();
    }

    /** Takes it back. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public void takeBack(StudyId study) {
        uses.deleteById(study);
    }
}
