package org.mossbank.server.audit;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.StudyId;

/** One line of what was done. Only ever added. */
@Entity
class AuditEvent {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long number;

    private Instant at;

    @Enumerated(EnumType.STRING)
    private AuditSort sort;

    private String who;

    @Nullable
    private String address;

    @Nullable
    private StudyId studyId;

    private String subject;

    @SuppressWarnings("NullAway.Init")
    protected AuditEvent() {}

    static AuditEvent of(AuditSort sort, String who, @Nullable StudyId study, String subject) {
        AuditEvent event = new AuditEvent();
        event.sort = sort;
        event.who = who;
        event.studyId = study;
        event.subject = subject;
        return event;
    }

    AuditEvent at(Instant now, @Nullable String from) {
        at = now;
        address = from;
        return this;
    }

    AuditEventView view() {
        return new AuditEventView(number, at, sort, who, address, studyId, subject);
    }
}
