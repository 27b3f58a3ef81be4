package org.mossbank.server.provider;

import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import java.io.Serializable;
import java.time.Instant;
import org.mossbank.server.ids.AccountId;

/** Who somebody is at a provider. */
@Entity
class ExternalIdentity {
    /**
     * What the provider itself calls them, for good.
     *
     * @param issuer  the provider's own address
     * @param subject its name for the person; nothing else is theirs alone
     */
    @Embeddable
    record Key(String issuer, String subject) implements Serializable {}

    @EmbeddedId
    private Key key;

    private AccountId accountId;
    private String provider;
    private String shownAs;
    private Instant createdAt;
    private Instant usedAt;

    @SuppressWarnings("NullAway.Init")
    protected ExternalIdentity() {}

    static ExternalIdentity of(Key key, AccountId accountId, String provider, Instant now) {
        ExternalIdentity identity = new ExternalIdentity();
        identity.key = key;
        identity.accountId = accountId;
        identity.provider = provider;
        identity.createdAt = now;
        return identity;
    }

    /** @param name what they are called there at this moment, to know one's own again */
    void use(String name, Instant now) {
        shownAs = name;
        usedAt = now;
    }

    AccountId accountId() {
        return accountId;
    }

    String provider() {
        return provider;
    }

    String shownAs() {
        return shownAs;
    }

    Instant usedAt() {
        return usedAt;
    }
}
