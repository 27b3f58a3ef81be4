package org.mossbank.server.calibration.rows;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.calibration.Calibrations;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.TableRow;
import org.mossbank.server.files.Tables;
import org.mossbank.server.rubric.KeyedCriterion;

/** Reads calibrations, and checks what no column can say of itself. */
public final class CalibrationTables {
    private final Tables tables;
    private final Basis basis;

    /**
     * What calibrations are about.
     *
     * @param versions      published versions of the rubric
     * @param criteria      of the version that counts; those of the others are the same ones
     * @param calibrationOf the calibration that an answer's prompt is for, by answer; without those that count
     */
    public record Basis(Set<Integer> versions, List<KeyedCriterion> criteria, Map<String, Integer> calibrationOf) {}

    private CalibrationTables(Tables tables, Basis basis) {
        this.tables = tables;
        this.basis = basis;
    }

    public static List<KeyedCalibration> read(Tables tables, Basis basis) {
        return new CalibrationTables(tables, basis).all();
    }

    private List<KeyedCalibration> all() {
        Map<Integer, List<Line<CalibrationRows.WordRow>>> words =
                tables.by(CalibrationRows.WORDS, CalibrationRows.WordRow::calibration);
        Map<Integer, List<Line<CalibrationRows.LevelRow>>> levels =
                tables.by(CalibrationRows.LEVELS, CalibrationRows.LevelRow::calibration);
        Map<String, Integer> highest = new HashMap<>();
        basis.criteria().forEach(c -> highest.put(c.key(), c.highestLevel()));
        return tables.lines(CalibrationRows.CALIBRATIONS).stream()
                .map(line -> new KeyedCalibration(
                        line.row().calibration(),
                        course(line),
                        words.getOrDefault(line.row().calibration(), List.of()).stream()
                                .map(this::word)
                                .toList(),
                        levels.getOrDefault(line.row().calibration(), List.of()).stream()
                                .map(l -> level(l, highest))
                                .toList()))
                .toList();
    }

    private void fault(TableRow at, String field, String expected) {
        tables.faults().add(at, field, expected, at.textOrNull(field));
    }

    private Calibrations.CalibrationCourse course(Line<CalibrationRows.CalibrationRow> line) {
        CalibrationRows.CalibrationRow row = line.row();
        requireVersion(line.at(), "rubric_version", row.rubricVersion());
        requireVersion(line.at(), "again_rubric_version", row.againRubricVersion());
        if ((row.againAt() == null) != (row.againRubricVersion() == null)) {
            fault(line.at(), "again_at", "with again_rubric_version or not at all");
        }
        if (row.againAt() != null && row.talkOpenedAt() == null) {
            fault(line.at(), "talk_opened_at", "when all had sent in, as it was graded again");
        }
        return new Calibrations.CalibrationCourse(
                row.begunAt(),
                row.begunBy(),
                row.rubricVersion(),
                row.talkOpenedAt(),
                row.againAt() == null || row.againRubricVersion() == null
                        ? null
                        : new Calibrations.GradedAgain(row.againAt(), row.againRubricVersion()));
    }

    private void requireVersion(TableRow at, String field, @Nullable Integer version) {
        if (version != null && !basis.versions().contains(version)) {
            fault(at, field, "the number of a published version of the rubric");
        }
    }

    private void requireCalibrated(TableRow at, String answer, int calibration) {
        if (!Integer.valueOf(calibration).equals(basis.calibrationOf().get(answer))) {
            fault(at, "answer", "an answer to a prompt that is for this calibration");
        }
    }

    private KeyedCalibration.KeyedWord word(Line<CalibrationRows.WordRow> line) {
        CalibrationRows.WordRow row = line.row();
        requireCalibrated(line.at(), row.answer(), row.calibration());
        boolean ordered = row.fromLine() == null || row.toLine() == null || row.fromLine() <= row.toLine();
        if ((row.fromLine() == null) != (row.toLine() == null) || !ordered) {
            fault(line.at(), "to_line", "a line from from_line on, or none with none");
        }
        return new KeyedCalibration.KeyedWord(
                row.answer(),
                row.criterion(),
                row.fromLine() == null || row.toLine() == null
                        ? null
                        : new Calibrations.AtLines(row.fromLine(), row.toLine()),
                row.rater(),
                row.saidAt(),
                row.words(),
                row.namesKnown());
    }

    private KeyedCalibration.KeyedLevel level(Line<CalibrationRows.LevelRow> line, Map<String, Integer> highest) {
        CalibrationRows.LevelRow row = line.row();
        requireCalibrated(line.at(), row.answer(), row.calibration());
        int most = Require.known(highest, row.criterion());
        if (row.level() > most) {
            fault(line.at(), "level", "at most " + most + ", the highest level of the criterion");
        }
        return new KeyedCalibration.KeyedLevel(
                row.answer(), row.criterion(), row.source(), row.level(), row.reason(), row.saidBy(), row.saidAt());
    }
}
