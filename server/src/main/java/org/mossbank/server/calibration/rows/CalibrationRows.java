package org.mossbank.server.calibration.rows;

import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.calibration.Calibrations;
import org.mossbank.server.files.Column;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.TableForm;
import org.mossbank.server.files.WrittenFiles;

/** Calibrations as rows of the open format; {@link CalibrationTables} reads them. */
public final class CalibrationRows {
    @TableForm(
            name = "calibrations",
            meaning = "When raters learned the ruler together, on prompts that count nowhere.",
            key = {"calibration"})
    record CalibrationRow(
            @Column("Which one, from 1") @Min(1) @Max(1000) int calibration,

            @Column("When it was begun, ISO 8601 with zone") @NotNull
            Instant begunAt,

            @Column("Name of who began it") @NotNull @Size(min = 1, max = 200)
            String begunBy,

            @Column("The published version of the rubric that was graded by") @Min(1)
            int rubricVersion,

            @Column("When all had sent in and saw what others gave, ISO 8601 with zone; empty until then") @Nullable
            Instant talkOpenedAt,

            @Column("When it was graded again, ISO 8601 with zone; empty unless it was") @Nullable
            Instant againAt,

            @Column("The version that it was graded by then; with again_at or not at all") @Min(1) @Nullable
            Integer againRubricVersion) {}

    @TableForm(name = "calibration-words", meaning = "What was said while raters calibrated, oldest first.")
    record WordRow(
            @Column(value = "The calibration", in = "calibrations.calibration") @Min(1)
            int calibration,

            @Column(value = "The answer", in = "answers.answer") @NotNull
            String answer,

            @Column(value = "The criterion; empty for the answer as a whole", in = "criteria.criterion") @Nullable
            String criterion,

            @Column("First line of the answer's text that it is about, from 1; empty for none") @Min(1) @Nullable
            Integer fromLine,

            @Column("Last line; with from_line or not at all") @Min(1) @Nullable
            Integer toLine,

            @Column(value = "Key of the rater who said it; empty for the lead", in = "raters.rater") @Nullable
            String rater,

            @Column("When, ISO 8601 with zone") @NotNull Instant saidAt,

            @Column("What was said") @NotNull @Size(min = 1, max = 4000)
            String words,

            @Column("true if whoever said it could see then which candidate wrote the answer")
            boolean namesKnown) {}

    @TableForm(
            name = "calibration-levels",
            meaning = "At which levels answers that raters calibrated by should stand.",
            key = {"calibration", "answer", "criterion", "source"})
    record LevelRow(
            @Column(value = "The calibration", in = "calibrations.calibration") @Min(1)
            int calibration,

            @Column(value = "The answer", in = "answers.answer") @NotNull
            String answer,

            @Column(value = "The criterion", in = "criteria.criterion") @NotNull
            String criterion,

            @Column("Said beforehand by people who know, or settled on in the talk")
            Calibrations.@NotNull Source source,

            @Column("The level, from 0") @Min(0) @Max(9) int level,

            @Column("Why") @NotNull @Size(min = 1, max = 2000)
            String reason,

            @Column("Name of who said it") @NotNull @Size(min = 1, max = 200)
            String saidBy,

            @Column("When, ISO 8601 with zone") @NotNull Instant saidAt) {}

    static final Table<CalibrationRow> CALIBRATIONS = Table.of(CalibrationRow.class);
    static final Table<WordRow> WORDS = Table.of(WordRow.class);
    static final Table<LevelRow> LEVELS = Table.of(LevelRow.class);

    public static final List<Table<?>> TABLES = List.of(CALIBRATIONS, WORDS, LEVELS);

    private CalibrationRows() {}

    public static void write(KeyedCalibration calibration, WrittenFiles out) {
        Calibrations.CalibrationCourse course = calibration.course();
        Calibrations.GradedAgain again = course.again();
        out.add(
                CALIBRATIONS,
                new CalibrationRow(
                        calibration.number(),
                        course.begunAt(),
                        course.begunBy(),
                        course.rubricVersion(),
                        course.talkOpenedAt(),
                        again == null ? null : again.at(),
                        again == null ? null : again.rubricVersion()));
        calibration
                .words()
                .forEach(w -> out.add(
                        WORDS,
                        new WordRow(
                                calibration.number(),
                                w.answer(),
                                w.criterion(),
                                w.lines() == null ? null : w.lines().from(),
                                w.lines() == null ? null : w.lines().to(),
                                w.rater(),
                                w.at(),
                                w.words(),
                                w.namesKnown())));
        calibration
                .levels()
                .forEach(l -> out.add(
                        LEVELS,
                        new LevelRow(
                                calibration.number(),
                                l.answer(),
                                l.criterion(),
                                l.source(),
                                l.level(),
                                l.reason(),
                                l.by(),
                                l.at())));
    }
}
