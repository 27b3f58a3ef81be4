package org.mossbank.server.recommendation;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.study.Studies;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** Works out what a look shows, and keeps it as it is. */
@Service
public class LookTaking {
    private final LookRepository looks;
    private final Studies studies;
    private final RecommendationComputation recommendation;
    private final RobustnessComputation robustness;
    private final EntityManager entities;

    LookTaking(
            LookRepository looks,
            Studies studies,
            RecommendationComputation recommendation,
            RobustnessComputation robustness,
            EntityManager entities) {
        this.looks = looks;
        this.studies = studies;
        this.recommendation = recommendation;
        this.robustness = robustness;
        this.entities = entities;
    }

    /** A look that was worked out and is not kept yet. */
    public record Worked(LookTaken taken, String report, String robustness) {}

    /** The next look of a study. Takes long; not within a transaction. */
    @SystemOnly
    @Transactional(propagation = Propagation.NEVER)
    public Worked workOut(StudyId study, Instant now, String by) {
        RecommendationComputation.Seen seen = recommendation.look(study);
        return new Worked(
                new LookTaken(
                        looks.ofStudy(study).size() + 1,
                        now,
                        by,
                        seen.information().counted(),
                        seen.information().planned(),
                        seen.report().outcome(),
                        seen.report().headline()),
                JsonMapper.shared().writeValueAsString(seen.report()),
                JsonMapper.shared().writeValueAsString(robustness.look(study)));
    }

    /** @throws Problem 409 if somebody took it in the meantime, or grading has ended */
    @SystemOnly
    @Transactional
    public void keep(StudyId study, Worked worked) {
        studies.claimWhileGrading(study);
        if (looks.existsById(new Look.Key(study, worked.taken().number()))) {
            throw new Problem(ProblemType.CHANGED_ELSEWHERE, "Somebody has taken this look in the meantime.");
        }
        entities.persist(Look.of(study, worked.taken(), worked.report(), worked.robustness()));
    }
}
