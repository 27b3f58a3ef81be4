package org.mossbank.server.grading.sheet;

import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import java.io.Serializable;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.grading.Confidence;
import org.mossbank.server.grading.Mark;
import org.mossbank.server.grading.desk.SheetView;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.SheetAnswerId;

/** The level that one rater gives one answer on one criterion, as it stands now. */
@Entity
public class Grade implements DeskCell {
    @Embeddable
    public record Key(SheetAnswerId sheetAnswerId, CriterionId criterionId) implements Serializable {}

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

    public static Grade of(Key key) {
        Grade grade = new Grade();
        grade.key = key;
        return grade;
    }

    public void set(Mark mark) {
        level = mark.level();
        notApplicable = mark.notApplicable();
        confidence = mark.confidence();
        revision++;
    }

    public Key key() {
        return key;
    }

    public Mark mark() {
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
