package org.mossbank.server.grading;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;

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

    @Nullable
    private Instant withdrawnAt;

    @Nullable
    private String withdrawnReason;

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
        sheet.withdrawnAt = start.withdrawn() == null ? null : start.withdrawn().at();
        sheet.withdrawnReason =
                start.withdrawn() == null ? null : start.withdrawn().reason();
        return sheet;
    }

    void send(Instant now) {
        sentAt = now;
    }

    void takeBack() {
        sentAt = null;
    }

    /** Its grades stay, and count nowhere. */
    void withdraw(String reason, Instant now) {
        withdrawnAt = now;
        withdrawnReason = reason;
    }

    void giveBack() {
        withdrawnAt = null;
        withdrawnReason = null;
    }

    void refuseIfWithdrawn() {
        if (withdrawnAt != null) {
            throw new Problem(ProblemType.SHEET_WITHDRAWN, "The lead has withdrawn this sheet: " + withdrawnReason);
        }
    }

    boolean isWithdrawn() {
        return withdrawnAt != null;
    }

    /** When and why it was withdrawn, if it was. */
    Grading.@Nullable Withdrawn withdrawn() {
        return withdrawnAt == null || withdrawnReason == null
                ? null
                : new Grading.Withdrawn(withdrawnAt, withdrawnReason);
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
