package org.mossbank.server.recommendation;

import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.mossbank.core.decision.Outcome;
import org.mossbank.server.files.Column;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.TableForm;
import org.mossbank.server.files.Tables;
import org.mossbank.server.files.WrittenFiles;

/** The looks at a study, as rows of the open format. */
public final class LookRows {
    @TableForm(name = "looks", meaning = "Looks at how candidates stood before grading had ended, oldest first.")
    record LookRow(
            @Column("When, ISO 8601 with zone") @NotNull Instant at,

            @Column("Name of who took it") @NotNull @Size(min = 1, max = 200)
            String by,

            @Column("Prompts that counted then") @Min(1) @Max(100_000)
            int counted,

            @Column("Prompts of the study then") @Min(1) @Max(100_000)
            int planned,

            @Column("Outcome") @NotNull Outcome outcome,

            @Column("The same in a sentence") @NotNull @Size(max = 2000)
            String headline) {}

    private static final Table<LookRow> LOOKS = Table.of(LookRow.class);

    public static final List<Table<?>> TABLES = List.of(LOOKS);

    private LookRows() {}

    /** @param most that the brief allows, the one at the end included */
    public static List<LookTaken> read(Tables tables, int most) {
        List<LookTaken> looks = new ArrayList<>();
        for (Line<LookRow> line : tables.lines(LOOKS)) {
            LookRow row = line.row();
            LookTaken look = new LookTaken(
                    looks.size() + 1, row.at(), row.by(), row.counted(), row.planned(), row.outcome(), row.headline());
            if (row.counted() > row.planned()) {
                tables.faults().add(line.at(), "counted", "no more than planned", String.valueOf(row.counted()));
            } else if (look.number() >= most) {
                tables.faults().add(line.at(), null, "fewer looks than the brief allows: the last is the end", null);
            } else if (!looks.isEmpty() && looks.get(looks.size() - 1).information() >= look.information()) {
                tables.faults()
                        .add(line.at(), "counted", "more than at the look before", String.valueOf(row.counted()));
            }
            looks.add(look);
        }
        return looks;
    }

    public static void write(List<LookTaken> looks, WrittenFiles out) {
        looks.forEach(
                l -> out.add(LOOKS, new LookRow(l.at(), l.by(), l.counted(), l.planned(), l.outcome(), l.headline())));
    }
}
