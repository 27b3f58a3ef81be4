package org.mossbank.server.account;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import org.mossbank.server.ids.AccountId;

/** A link with which one person sets a password, once. Holds only the hash of its token. */
@Entity
class OneTimeLink {
    @Id
    private byte[] tokenHash;

    private AccountId accountId;
    private Instant expiresAt;

    @SuppressWarnings("NullAway.Init")
    protected OneTimeLink() {}

    static OneTimeLink of(byte[] tokenHash, AccountId accountId, Instant expiresAt) {
        OneTimeLink link = new OneTimeLink();
        link.tokenHash = tokenHash.clone();
        link.accountId = accountId;
        link.expiresAt = expiresAt;
        return link;
    }

    AccountId accountId() {
        return accountId;
    }
}
