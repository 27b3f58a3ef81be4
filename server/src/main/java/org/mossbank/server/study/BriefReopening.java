package org.mossbank.server.study;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;
import org.mossbank.server.ids.StudyId;

/** That a closed brief was opened again: when, by whom, why, and what it said before. Only ever added. */
@Entity
class BriefReopening {
    @Id
    private UUID id;

    private StudyId studyId;
    private Instant closedAt;
    private Instant reopenedAt;
    private String reopenedBy;
    private String reason;
    private String terms;

    @SuppressWarnings("NullAway.Init")
    protected BriefReopening() {}

    static BriefReopening of(StudyId studyId, Reopening start) {
        BriefReopening reopening = new BriefReopening();
        reopening.id = UUID.randomUUID();
        reopening.studyId = studyId;
        reopening.closedAt = start.closedAt();
        reopening.reopenedAt = start.reopenedAt();
        reopening.reopenedBy = start.by();
        reopening.reason = start.reason();
        reopening.terms = start.terms();
        return reopening;
    }

    Reopening view() {
        return new Reopening(closedAt, reopenedAt, reopenedBy, reason, terms);
    }
}
