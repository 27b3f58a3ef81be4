package org.mossbank.server.grading.reminding;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;

/** A lead's word to a rater. */
@Entity
public class Reminder {
    @Id
    private UUID id;

    private StudyId studyId;
    private AccountId raterId;
    private String sentBy;
    private String words;
    private Instant sentAt;

    @Nullable
    private Instant readAt;

    @SuppressWarnings("NullAway.Init")
    protected Reminder() {}

    static Reminder of(StudyId studyId, AccountId raterId, String sentBy, String words, Instant now) {
        Reminder reminder = new Reminder();
        reminder.id = UUID.randomUUID();
        reminder.studyId = studyId;
        reminder.raterId = raterId;
        reminder.sentBy = sentBy;
        reminder.words = words;
        reminder.sentAt = now;
        return reminder;
    }

    void putAway(Instant now) {
        if (readAt == null) {
            readAt = now;
        }
    }

    UUID id() {
        return id;
    }

    StudyId studyId() {
        return studyId;
    }

    public AccountId raterId() {
        return raterId;
    }

    String sentBy() {
        return sentBy;
    }

    String words() {
        return words;
    }

    public Instant sentAt() {
        return sentAt;
    }
}
