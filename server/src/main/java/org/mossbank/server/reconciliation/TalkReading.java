package org.mossbank.server.reconciliation;

import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import java.io.Serializable;
import java.time.Instant;
import java.util.UUID;
import org.mossbank.server.ids.AccountId;

/** That somebody has read a talk, and with it what others gave. */
@Entity
class TalkReading {
    @Embeddable
    record Key(UUID reconciliationId, AccountId readerId) implements Serializable {}

    @EmbeddedId
    private Key key;

    private Instant firstReadAt;
    private Instant lastReadAt;

    @SuppressWarnings("NullAway.Init")
    protected TalkReading() {}

    UUID reconciliationId() {
        return key.reconciliationId();
    }

    Instant lastReadAt() {
        return lastReadAt;
    }
}
