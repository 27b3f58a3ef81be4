package org.mossbank.server.reconciliation;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.Objects;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.StudyId;

/** A split that was taken up: its talk, and the settled grade it ends in. */
@Entity
class Reconciliation {
    @Id
    private UUID id;

    private StudyId studyId;
    private AnswerId answerId;
    private CriterionId criterionId;
    private Instant takenUpAt;
    private String takenUpBy;

    @Enumerated(EnumType.STRING)
    private SplitClosing.State state;

    @Enumerated(EnumType.STRING)
    private SplitClosing.@Nullable How how;

    @Nullable
    private Instant closedAt;

    @Nullable
    private String closedBy;

    @Nullable
    private Boolean closedKnowing;

    @Nullable
    private Double settledLevel;

    private String closingReason;

    @SuppressWarnings("NullAway.Init")
    protected Reconciliation() {}

    static Reconciliation of(StudyId study, AnswerId answer, CriterionId criterion, String by, Instant now) {
        Reconciliation taken = new Reconciliation();
        // Random: it goes to raters, and must not hint at the answer.
        taken.id = UUID.randomUUID();
        taken.studyId = study;
        taken.answerId = answer;
        taken.criterionId = criterion;
        taken.takenUpAt = now;
        taken.takenUpBy = by;
        taken.state = SplitClosing.State.OPEN;
        taken.closingReason = "";
        return taken;
    }

    void close(SplitClosing closing) {
        state = closing.state();
        how = closing.how();
        closedAt = closing.at();
        closedBy = closing.by();
        closedKnowing = closing.namesKnown();
        settledLevel = closing.level();
        closingReason = closing.reason();
    }

    void openAgain() {
        state = SplitClosing.State.OPEN;
        how = null;
        closedAt = null;
        closedBy = null;
        closedKnowing = null;
        settledLevel = null;
        closingReason = "";
    }

    boolean isOpen() {
        return state == SplitClosing.State.OPEN;
    }

    @Nullable
    SplitClosing closing() {
        return isOpen()
                ? null
                : new SplitClosing(
                        Objects.requireNonNull(how),
                        settledLevel,
                        Objects.requireNonNull(closedBy),
                        Objects.requireNonNull(closedAt),
                        closingReason,
                        Boolean.TRUE.equals(closedKnowing));
    }

    UUID id() {
        return id;
    }

    StudyId studyId() {
        return studyId;
    }

    AnswerId answerId() {
        return answerId;
    }

    CriterionId criterionId() {
        return criterionId;
    }

    Instant takenUpAt() {
        return takenUpAt;
    }

    String takenUpBy() {
        return takenUpBy;
    }

    SplitClosing.State state() {
        return state;
    }

    @Nullable
    Double settledLevel() {
        return settledLevel;
    }
}
