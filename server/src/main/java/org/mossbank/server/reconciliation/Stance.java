package org.mossbank.server.reconciliation;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;
import org.mossbank.server.ids.AccountId;

/** The level at which a rater stands after the talk; never changed, the newest of a rater counts. */
@Entity
class Stance {
    @Id
    private UUID id;

    private UUID reconciliationId;
    private AccountId raterId;
    private int level;
    private String reason;
    private Instant takenAt;
    private boolean namesKnown;

    @SuppressWarnings("NullAway.Init")
    protected Stance() {}

    /** @param id as the client made it, so that what is sent twice is taken once */
    static Stance of(UUID id, UUID reconciliation, Reconciliations.Stood stood) {
        Stance stance = new Stance();
        stance.id = id;
        stance.reconciliationId = reconciliation;
        stance.raterId = stood.rater();
        stance.level = stood.level();
        stance.reason = stood.reason();
        stance.takenAt = stood.at();
        stance.namesKnown = stood.namesKnown();
        return stance;
    }

    UUID reconciliationId() {
        return reconciliationId;
    }

    Reconciliations.Stood stood() {
        return new Reconciliations.Stood(raterId, level, reason, takenAt, namesKnown);
    }
}
