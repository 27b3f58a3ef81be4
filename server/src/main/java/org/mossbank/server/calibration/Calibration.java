package org.mossbank.server.calibration;

import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import java.io.Serializable;
import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.StudyId;

/** A calibration: prompts that everybody grades first, by one version of the rubric, and perhaps again after the talk. */
@Entity
class Calibration {
    /** @param number from 1 */
    @Embeddable
    record Key(StudyId studyId, int number) implements Serializable {}

    @EmbeddedId
    private Key key;

    private Instant begunAt;
    private String begunBy;
    private int rubricVersion;

    @Nullable
    private Instant talkOpenedAt;

    @Nullable
    private Instant againAt;

    @Nullable
    private Integer againRubricVersion;

    @SuppressWarnings("NullAway.Init")
    protected Calibration() {}

    static Calibration of(Key key, Calibrations.CalibrationCourse course) {
        Calibration begun = new Calibration();
        begun.key = key;
        begun.begunAt = course.begunAt();
        begun.begunBy = course.begunBy();
        begun.rubricVersion = course.rubricVersion();
        begun.talkOpenedAt = course.talkOpenedAt();
        Calibrations.GradedAgain again = course.again();
        if (again != null) {
            begun.gradeAgain(again);
        }
        return begun;
    }

    void openTalk(Instant now) {
        talkOpenedAt = now;
    }

    void gradeAgain(Calibrations.GradedAgain again) {
        againAt = again.at();
        againRubricVersion = again.rubricVersion();
    }

    Key key() {
        return key;
    }

    boolean isTalkOpen() {
        return talkOpenedAt != null;
    }

    Calibrations.CalibrationCourse course() {
        return new Calibrations.CalibrationCourse(
                begunAt,
                begunBy,
                rubricVersion,
                talkOpenedAt,
                againAt == null || againRubricVersion == null
                        ? null
                        : new Calibrations.GradedAgain(againAt, againRubricVersion));
    }
}
