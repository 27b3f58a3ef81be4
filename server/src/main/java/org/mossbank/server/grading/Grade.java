package org.mossbank.server.grading;

import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import java.io.Serializable;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** The level that one rater gives one answer on one criterion, as it stands now. */
@Entity
class Grade implements DeskCell {
    @Embeddable
    record Key(UUID sheetAnswerId, UUID criterionId) implements Serializable {}

    @EmbeddedId
    private Key key;

    @Nullable
    private Integer level;

    private boolean notApplicable;

    @Nullable
    @Enumerated(EnumType.STRING)
    private Confidence confidence;

    private long revision;

    @SuppressWarnings("NullAway.Init")
    protected Grade() {}

    static Grade of(Key key) {
        Grade grade = new Grade();
        grade.key = key;
        return grade;
    }

    void set(Mark mark) {
        level = mark.level();
        notApplicable = mark.notApplicable();
        confidence = mark.confidence();
        revision++;
    }

    Key key() {
        return key;
    }

    Mark mark() {
        return new Mark(level, notApplicable, confidence);
    }

    @Override
    public long revision() {
        return revision;
    }

    @Override
    public SheetView.GradeOnSheet state() {
        return SheetView.GradeOnSheet.of(this);
    }
}
