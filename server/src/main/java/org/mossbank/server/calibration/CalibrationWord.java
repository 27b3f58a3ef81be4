package org.mossbank.server.calibration;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.StudyId;

/** What somebody says of an answer that raters calibrate by; never changed. */
@Entity
class CalibrationWord {
    @Id
    private UUID id;

    private StudyId studyId;
    private int number;
    private AnswerId answerId;

    @Nullable
    private CriterionId criterionId;

    @Nullable
    private Integer fromLine;

    @Nullable
    private Integer toLine;

    private AccountId authorId;
    private String words;
    private Instant saidAt;
    private boolean namesKnown;

    @SuppressWarnings("NullAway.Init")
    protected CalibrationWord() {}

    /** @param id as the client made it, so that what is sent twice is said once */
    static CalibrationWord of(UUID id, Calibration.Key calibration, Calibrations.Word word) {
        CalibrationWord said = new CalibrationWord();
        said.id = id;
        said.studyId = calibration.studyId();
        said.number = calibration.number();
        said.answerId = word.answerId();
        said.criterionId = word.criterionId();
        Calibrations.AtLines lines = word.lines();
        said.fromLine = lines == null ? null : lines.from();
        said.toLine = lines == null ? null : lines.to();
        said.authorId = word.author();
        said.words = word.words();
        said.saidAt = word.at();
        said.namesKnown = word.namesKnown();
        return said;
    }

    UUID id() {
        return id;
    }

    int number() {
        return number;
    }

    Calibrations.Word word() {
        return new Calibrations.Word(
                answerId,
                criterionId,
                fromLine == null || toLine == null ? null : new Calibrations.AtLines(fromLine, toLine),
                authorId,
                words,
                saidAt,
                namesKnown);
    }
}
