package org.mossbank.server.grading;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.util.UUID;

/** An answer on a sheet, under an id of that sheet's own, with the rater's reason. */
@Entity
class SheetAnswer {
    @Id
    private UUID id;

    private UUID sheetId;
    private UUID answerId;
    private int place;
    private String reason;
    private long reasonRevision;

    @SuppressWarnings("NullAway.Init")
    protected SheetAnswer() {}

    static SheetAnswer of(UUID sheetId, UUID answerId, int place, String reason) {
        SheetAnswer answer = new SheetAnswer();
        answer.id = UUID.randomUUID();
        answer.sheetId = sheetId;
        answer.answerId = answerId;
        answer.place = place;
        answer.reason = reason;
        answer.reasonRevision = reason.isEmpty() ? 0 : 1;
        return answer;
    }

    void explain(String newReason) {
        reason = newReason;
        reasonRevision++;
    }

    UUID id() {
        return id;
    }

    UUID sheetId() {
        return sheetId;
    }

    UUID answerId() {
        return answerId;
    }

    int place() {
        return place;
    }

    String reason() {
        return reason;
    }

    long reasonRevision() {
        return reasonRevision;
    }
}
