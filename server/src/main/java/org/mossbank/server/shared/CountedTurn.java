package org.mossbank.server.shared;

import jakarta.persistence.EntityManager;
import java.util.UUID;
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

    /** Waits until nobody else has it, and has it until the transaction ends. */
    @SystemOnly
    @Transactional(propagation = Propagation.MANDATORY)
    public void take(String what, UUID of) {
        entities.createNativeQuery(
                        "select cast(pg_advisory_xact_lock(hashtextextended(:turn, 0)) as text)", String.class)
                .setParameter("turn", what + " " + of)
                .getSingleResult();
    }
}
