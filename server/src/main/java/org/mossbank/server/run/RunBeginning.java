package org.mossbank.server.run;

import jakarta.persistence.EntityManager;
import java.math.BigDecimal;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.account.Actor;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.FreeKey;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.study.Studies;
import org.springframework.stereotype.Component;

/** How every run begins: with a key of its own, and the name of who began it. */
@Component
class RunBeginning {
    private final RunRepository runs;
    private final Studies studies;
    private final EntityManager entities;
    private final Actor actor;

    RunBeginning(RunRepository runs, Studies studies, EntityManager entities, Actor actor) {
        this.runs = runs;
        this.studies = studies;
        this.entities = entities;
        this.actor = actor;
    }

    /**
     * Holds the study in preparation until the transaction ends.
     *
     * @throws Problem 409 once the round is open
     */
    void require(StudyId study) {
        studies.requirePreparing(study);
    }

    /** A run without cells that goes on at once. Called within the transaction of whoever begins it. */
    Run begin(
            StudyId study,
            int attempts,
            int followUps,
            @Nullable BigDecimal budgetCost,
            @Nullable Long budgetTokens,
            @Nullable String currency) {
        Set<String> keys = runs.ofStudy(study).stream().map(r -> r.head().key()).collect(Collectors.toSet());
        Run run = Run.of(
                study,
                new Runs.RunHead(
                        FreeKey.of("run-" + (keys.size() + 1), "run", keys),
                        actor.name(),
                        actor.now(),
                        attempts,
                        followUps,
                        budgetCost,
                        budgetTokens,
                        currency,
                        false,
                        ""));
        run.goOn();
        entities.persist(run);
        return run;
    }
}
