package org.mossbank.server.secret;

import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import java.io.Serializable;
import java.time.Instant;
import org.hibernate.annotations.Immutable;
import org.mossbank.server.ids.StudyId;

/** Something that looks like a secret, of which a person said that it may be sent. What it is stands here as a digest alone. */
@Entity
@Immutable
class ClearedSecret {
    /** @param digest of the study and the value, SHA-256 */
    @Embeddable
    record Key(StudyId studyId, String digest) implements Serializable {}

    @EmbeddedId
    private Key key;

    private String why;
    private Instant clearedAt;
    private String clearedBy;

    @SuppressWarnings("NullAway.Init")
    protected ClearedSecret() {}

    String digest() {
        return key.digest;
    }

    SecretsView.Cleared view() {
        return new SecretsView.Cleared(why, clearedAt, clearedBy);
    }
}
