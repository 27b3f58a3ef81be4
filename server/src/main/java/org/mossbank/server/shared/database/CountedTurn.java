package org.mossbank.server.shared.database;

import jakarta.persistence.EntityManager;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Lets one transaction at a time count what is limited and add to it: two at once would both still find room. */
@Component
public class CountedTurn {
    private final EntityManager entities;

    CountedTurn(EntityManager entities) {
        this.entities = entities;
    }

    /**
     * Waits until nobody else has it, and has it until the transaction ends.
     *
     * @param turn what is counted, and of whom
     */
    @SystemOnly
    @Transactional(propagation = Propagation.MANDATORY)
    public void take(String turn) {
        entities.createNativeQuery(
                        "select cast(pg_advisory_xact_lock(hashtextextended(:turn, 0)) as text)", String.class)
                .setParameter("turn", turn)
                .getSingleResult();
    }
}
