package org.mossbank.server.account;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;

/** A link with which one person sets a password, once. Holds only the hash of its token. */
@Entity
class OneTimeLink {
    @Id
    private byte[] tokenHash;

    private UUID accountId;
    private Instant expiresAt;

    @SuppressWarnings("NullAway.Init")
    protected OneTimeLink() {}

    static OneTimeLink of(byte[] tokenHash, UUID accountId, Instant expiresAt) {
        OneTimeLink link = new OneTimeLink();
        link.tokenHash = tokenHash.clone();
        link.accountId = accountId;
        link.expiresAt = expiresAt;
        return link;
    }

    UUID accountId() {
        return accountId;
    }
}
