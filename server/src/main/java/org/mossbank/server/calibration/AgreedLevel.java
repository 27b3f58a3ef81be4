package org.mossbank.server.calibration;

import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import java.io.Serializable;
import java.time.Instant;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.StudyId;

/** At which level an answer should stand on a criterion, as somebody said who knows, or as all settled on. */
@Entity
class AgreedLevel {
    @Embeddable
    record Key(
            StudyId studyId,
            int number,
            AnswerId answerId,
            CriterionId criterionId,
            @Enumerated(EnumType.STRING) Calibrations.Source source)
            implements Serializable {}

    @EmbeddedId
    private Key key;

    private int level;
    private String reason;
    private String saidBy;
    private Instant saidAt;

    @SuppressWarnings("NullAway.Init")
    protected AgreedLevel() {}

    static AgreedLevel of(Calibration.Key calibration, Calibrations.Agreed agreed) {
        AgreedLevel level = new AgreedLevel();
        level.key = new Key(
                calibration.studyId(), calibration.number(), agreed.answerId(), agreed.criterionId(), agreed.source());
        level.say(agreed);
        return level;
    }

    void say(Calibrations.Agreed agreed) {
        level = agreed.level();
        reason = agreed.reason();
        saidBy = agreed.by();
        saidAt = agreed.at();
    }

    int number() {
        return key.number();
    }

    Calibrations.Agreed agreed() {
        return new Calibrations.Agreed(key.answerId(), key.criterionId(), key.source(), level, reason, saidBy, saidAt);
    }
}
