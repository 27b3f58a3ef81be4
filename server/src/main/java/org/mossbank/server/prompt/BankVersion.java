package org.mossbank.server.prompt;

import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import java.io.Serializable;
import java.time.Instant;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** One version of a kept prompt; never changed. */
@Entity
class BankVersion {
    @Embeddable
    record Key(UUID bankPromptId, int number) implements Serializable {}

    @EmbeddedId
    private Key key;

    private String kind;
    private String title;
    private String content;
    private Instant savedAt;
    private String savedBy;

    @Nullable
    private String specimens;

    private int specimenCount;

    @SuppressWarnings("NullAway.Init")
    protected BankVersion() {}

    static BankVersion of(Key key, String kind, String title, String content) {
        BankVersion version = new BankVersion();
        version.key = key;
        version.kind = kind;
        version.title = title;
        version.content = content;
        return version;
    }

    BankVersion saved(Instant at, String by) {
        savedAt = at;
        savedBy = by;
        return this;
    }

    /**
     * @param json  specimens; absent where there are none
     * @param count how many they are
     */
    BankVersion with(@Nullable String json, int count) {
        specimens = json;
        specimenCount = count;
        return this;
    }

    @Nullable
    String specimens() {
        return specimens;
    }

    Key key() {
        return key;
    }

    String kind() {
        return kind;
    }

    String title() {
        return title;
    }

    String content() {
        return content;
    }

    Instant savedAt() {
        return savedAt;
    }

    String savedBy() {
        return savedBy;
    }
}
