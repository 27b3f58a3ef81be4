package org.mossbank.server.memo;

import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import java.io.Serializable;
import java.time.Instant;
import java.util.UUID;
import org.mossbank.server.ids.AccountId;

/** Where a rater sees it otherwise than the memo that is being written. */
@Entity
class MemoDissent {
    @Embeddable
    record Key(UUID memoId, AccountId raterId) implements Serializable {}

    @EmbeddedId
    private Key key;

    private String words;
    private Instant saidAt;

    @SuppressWarnings("NullAway.Init")
    protected MemoDissent() {}

    static MemoDissent of(UUID memo, AccountId rater) {
        MemoDissent dissent = new MemoDissent();
        dissent.key = new Key(memo, rater);
        return dissent;
    }

    void say(String newWords, Instant now) {
        words = newWords;
        saidAt = now;
    }

    Instant saidAt() {
        return saidAt;
    }

    AccountId raterId() {
        return key.raterId();
    }

    String words() {
        return words;
    }
}
