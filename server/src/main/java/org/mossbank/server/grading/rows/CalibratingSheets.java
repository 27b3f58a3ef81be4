package org.mossbank.server.grading.rows;

import java.util.Set;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.Tables;

/** What is special of sheets that raters calibrate by. */
public final class CalibratingSheets {
    private CalibratingSheets() {}

    /** Sheets for other prompts are faults: the study's round is not open. */
    public static void refuseOthers(Tables tables, Set<String> prompts) {
        tables.lines(SheetRows.SHEETS).stream()
                .filter(l -> !prompts.contains(l.row().prompt()))
                .forEach(l -> tables.faults()
                        .add(
                                l.at(),
                                "prompt",
                                "a prompt of a calibration, as the study is being prepared",
                                l.row().prompt()));
    }

    /** They name the version of the rubric that they are graded by, and no others do. */
    static void checkVersion(Tables tables, SheetReader.Basis basis, Line<SheetRows.SheetRow> line) {
        boolean calibrates = basis.prompt(line.row().prompt()).calibration() != null;
        Integer version = line.row().rubricVersion();
        if (calibrates != (version != null) || version != null && !basis.isPublished(version)) {
            tables.faults()
                    .add(
                            line.at(),
                            "rubric_version",
                            calibrates
                                    ? "the number of a published version of the rubric, as raters calibrate by the prompt"
                                    : "nothing, as the prompt is for no calibration",
                            line.at().textOrNull("rubric_version"));
        }
    }
}
