package org.mossbank.server.memo;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** A link with which somebody without an account reads one signed memo. Holds only the hash of its token. */
@Entity
class MemoLink {
    @Id
    private UUID id;

    private UUID memoId;
    private byte[] tokenHash;
    private Instant madeAt;
    private String madeBy;
    private Instant expiresAt;

    @Nullable
    private Instant withdrawnAt;

    @SuppressWarnings("NullAway.Init")
    protected MemoLink() {}

    static MemoLink of(UUID memo, byte[] tokenHash, Instant now, String by, Instant expiresAt) {
        MemoLink link = new MemoLink();
        link.id = UUID.randomUUID();
        link.memoId = memo;
        link.tokenHash = tokenHash.clone();
        link.madeAt = now;
        link.madeBy = by;
        link.expiresAt = expiresAt;
        return link;
    }

    /** Withdrawing it twice is the same as once. */
    void withdraw(Instant now) {
        if (withdrawnAt == null) {
            withdrawnAt = now;
        }
    }

    UUID memoId() {
        return memoId;
    }

    boolean isLive(Instant now) {
        return withdrawnAt == null && now.isBefore(expiresAt);
    }

    MemoViews.LinkView view() {
        return new MemoViews.LinkView(id, madeAt, madeBy, expiresAt, withdrawnAt);
    }
}
