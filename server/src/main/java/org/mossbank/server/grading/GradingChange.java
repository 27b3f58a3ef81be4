package org.mossbank.server.grading;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** One change of a grade or a reason. Only ever added; the database refuses anything else. */
@Entity
class GradingChange {
    @Id
    private UUID changeId;

    private UUID sheetAnswerId;

    @Nullable
    private UUID criterionId;

    @Nullable
    private Integer level;

    private boolean notApplicable;

    @Nullable
    private String reason;

    private long revision;
    private Instant madeAt;

    @SuppressWarnings("NullAway.Init")
    protected GradingChange() {}

    static GradingChange ofGrade(UUID changeId, Grade grade, Instant now) {
        GradingChange change = new GradingChange();
        change.changeId = changeId;
        change.sheetAnswerId = grade.key().sheetAnswerId();
        change.criterionId = grade.key().criterionId();
        change.level = grade.mark().level();
        change.notApplicable = grade.mark().notApplicable();
        change.revision = grade.revision();
        change.madeAt = now;
        return change;
    }

    static GradingChange ofReason(UUID changeId, SheetAnswer answer, Instant now) {
        GradingChange change = new GradingChange();
        change.changeId = changeId;
        change.sheetAnswerId = answer.id();
        change.reason = answer.reason();
        change.revision = answer.reasonRevision();
        change.madeAt = now;
        return change;
    }

    /** Whether this change was made to that cell; a change id is for one cell only. */
    boolean isOf(UUID sheetAnswer, @Nullable UUID criterion) {
        return sheetAnswerId.equals(sheetAnswer) && java.util.Objects.equals(criterionId, criterion);
    }
}
