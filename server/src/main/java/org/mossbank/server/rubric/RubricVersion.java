package org.mossbank.server.rubric;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.StudyId;

/** One version of a study's rubric: a draft until it is published, and from then on unchanged. */
@Entity
class RubricVersion {
    @Id
    private UUID id;

    private StudyId studyId;
    private int number;
    private String note;

    @Nullable
    private Instant publishedAt;

    private boolean inUse;

    /** Counts writings of the draft. */
    @Version
    private long version;

    @SuppressWarnings("NullAway.Init")
    protected RubricVersion() {}

    StudyId studyId() {
        return studyId;
    }

    static RubricVersion draft(StudyId studyId, int number) {
        RubricVersion version = new RubricVersion();
        version.id = UUID.randomUUID();
        version.studyId = studyId;
        version.number = number;
        version.note = "";
        return version;
    }

    void publish(Instant now, String what) {
        publishedAt = now;
        note = what;
    }

    void use() {
        inUse = true;
    }

    UUID id() {
        return id;
    }

    int number() {
        return number;
    }

    boolean isDraft() {
        return publishedAt == null;
    }

    boolean isInUse() {
        return inUse;
    }

    long version() {
        return version;
    }

    VersionView view() {
        return new VersionView(number, publishedAt, note, inUse);
    }
}
