package org.mossbank.server.grading;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** One rater's page for one prompt. */
@Entity
class Sheet {
    @Id
    private UUID id;

    private UUID studyId;
    private UUID promptId;
    private UUID raterId;
    private int place;
    private boolean repeat;

    @Nullable
    private Instant sentAt;

    @SuppressWarnings("NullAway.Init")
    protected Sheet() {}

    static Sheet of(UUID studyId, Grading.SheetRecord start) {
        Sheet sheet = new Sheet();
        // Random, so that ids carry no order of entry.
        sheet.id = UUID.randomUUID();
        sheet.studyId = studyId;
        sheet.promptId = start.promptId();
        sheet.raterId = start.raterId();
        sheet.place = start.place();
        sheet.repeat = start.repeat();
        sheet.sentAt = start.sentAt();
        return sheet;
    }

    void send(Instant now) {
        sentAt = now;
    }

    void takeBack() {
        sentAt = null;
    }

    UUID id() {
        return id;
    }

    UUID studyId() {
        return studyId;
    }

    UUID promptId() {
        return promptId;
    }

    UUID raterId() {
        return raterId;
    }

    int place() {
        return place;
    }

    /** Whether it comes a second time; its rater is not told. */
    boolean isRepeat() {
        return repeat;
    }

    boolean isSent() {
        return sentAt != null;
    }

    Optional<Instant> sentAt() {
        return Optional.ofNullable(sentAt);
    }
}
