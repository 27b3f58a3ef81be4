package org.mossbank.server.reconciliation;

import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import java.io.Serializable;
import java.time.Instant;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;

/** A blind look at the answer of a split, of somebody who sees no grades. */
@Entity
class ThirdLook {
    @Embeddable
    record Key(UUID reconciliationId, AccountId raterId) implements Serializable {}

    @EmbeddedId
    private Key key;

    private Instant askedAt;
    private String askedBy;

    @Nullable
    private Integer level;

    @Nullable
    private String reason;

    @Nullable
    private Instant givenAt;

    @SuppressWarnings("NullAway.Init")
    protected ThirdLook() {}

    static ThirdLook of(UUID reconciliation, Reconciliations.Look look) {
        ThirdLook asked = new ThirdLook();
        asked.key = new Key(reconciliation, look.rater());
        asked.askedAt = look.askedAt();
        asked.askedBy = look.askedBy();
        Reconciliations.Given given = look.given();
        if (given != null) {
            asked.give(given);
        }
        return asked;
    }

    void give(Reconciliations.Given given) {
        level = given.level();
        reason = given.reason();
        givenAt = given.at();
    }

    boolean isGiven() {
        return givenAt != null;
    }

    Key key() {
        return key;
    }

    Reconciliations.Look look() {
        return new Reconciliations.Look(
                key.raterId(),
                askedAt,
                askedBy,
                level == null || reason == null || givenAt == null
                        ? null
                        : new Reconciliations.Given(level, reason, givenAt));
    }
}
