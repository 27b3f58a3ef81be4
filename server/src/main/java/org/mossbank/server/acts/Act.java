package org.mossbank.server.acts;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;
import org.hibernate.annotations.Immutable;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.decision.Outcome;
import org.mossbank.server.ids.StudyId;

/** What somebody did that may change an outcome. Only ever added. */
@Entity
@Immutable
class Act {
    @Id
    private UUID id;

    private StudyId studyId;

    @Enumerated(EnumType.STRING)
    private ActSort sort;

    private String subject;
    private String reason;
    private String madeBy;
    private Instant madeAt;
    private boolean namesKnown;

    @Nullable
    @Enumerated(EnumType.STRING)
    private Outcome outcomeBefore;

    @Nullable
    private String headlineBefore;

    @SuppressWarnings("NullAway.Init")
    protected Act() {}

    static Act of(StudyId studyId, ActView start) {
        Act act = new Act();
        act.id = UUID.randomUUID();
        act.studyId = studyId;
        act.sort = start.sort();
        act.subject = start.subject();
        act.reason = start.reason();
        act.madeBy = start.by();
        act.madeAt = start.at();
        act.namesKnown = start.namesKnown();
        OutcomeTeller.Told before = start.before();
        act.outcomeBefore = before == null ? null : before.outcome();
        act.headlineBefore = before == null ? null : before.headline();
        return act;
    }

    UUID id() {
        return id;
    }

    ActView view(OutcomeTeller.@Nullable Told after) {
        return new ActView(
                sort,
                subject,
                reason,
                madeBy,
                madeAt,
                namesKnown,
                outcomeBefore == null || headlineBefore == null
                        ? null
                        : new OutcomeTeller.Told(outcomeBefore, headlineBefore),
                after);
    }
}
