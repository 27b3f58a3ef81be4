package org.mossbank.server.recommendation;

import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import java.io.Serializable;
import java.time.Instant;
import java.util.Optional;
import org.hibernate.annotations.Immutable;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.decision.Outcome;
import org.mossbank.server.ids.StudyId;

/** A look that was taken, with the whole report as it was then. Only ever added. */
@Entity
@Immutable
class Look {
    /** @param number from 1 */
    @Embeddable
    record Key(StudyId studyId, int number) implements Serializable {}

    @EmbeddedId
    private Key key;

    private Instant takenAt;
    private String takenBy;
    private int counted;
    private int planned;

    @Enumerated(EnumType.STRING)
    private Outcome outcome;

    private String headline;

    /** JSON; absent where an archive brought the look. */
    @Nullable
    private String report;

    /** The same. */
    @Nullable
    private String robustness;

    @SuppressWarnings("NullAway.Init")
    protected Look() {}

    static Look of(StudyId study, LookTaken taken, @Nullable String report, @Nullable String robustness) {
        Look look = new Look();
        look.key = new Key(study, taken.number());
        look.takenAt = taken.at();
        look.takenBy = taken.by();
        look.counted = taken.counted();
        look.planned = taken.planned();
        look.outcome = taken.outcome();
        look.headline = taken.headline();
        look.report = report;
        look.robustness = robustness;
        return look;
    }

    Optional<String> report() {
        return Optional.ofNullable(report);
    }

    Optional<String> robustness() {
        return Optional.ofNullable(robustness);
    }
}
