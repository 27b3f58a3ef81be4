package org.mossbank.server.grading;

import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import java.io.Serializable;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** The level that one rater gives one answer on one criterion, as it stands now. */
@Entity
class Grade {
    @Embeddable
    record Key(UUID sheetAnswerId, UUID criterionId) implements Serializable {}

    @EmbeddedId
    private Key key;

    @Nullable
    private Integer level;

    private boolean notApplicable;
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
        revision++;
    }

    Key key() {
        return key;
    }

    Mark mark() {
        return new Mark(level, notApplicable);
    }

    long revision() {
        return revision;
    }
}
