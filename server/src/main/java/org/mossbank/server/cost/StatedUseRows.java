package org.mossbank.server.cost;

import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.candidate.TeamUse;
import org.mossbank.server.files.As;
import org.mossbank.server.files.Column;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.TableForm;
import org.mossbank.server.files.Tables;
import org.mossbank.server.files.WrittenFiles;

/** The stated use of a study as a table of the open format. */
public final class StatedUseRows {
    @TableForm(
            name = "stated-use",
            meaning = "How the team would use what it chooses, so that a month of it can be priced; one row at most.")
    record UseRow(
            @Column("Who would use it") @As(TeamUse.class) @NotNull
            Integer people,

            @Column("Tasks a person and working day") @As(TeamUse.class) @NotNull
            Double tasksPerDay,

            @Column("Working days a month") @As(TeamUse.class) @NotNull
            Integer daysPerMonth,

            @Column("When it was said, ISO 8601 with zone") @NotNull
            Instant at,

            @Column("Name of who said so") @NotNull @Size(min = 1, max = 200)
            String by) {}

    private static final Table<UseRow> USE = Table.of(UseRow.class);

    public static final List<Table<?>> TABLES = List.of(USE);

    private StatedUseRows() {}

    public static Optional<TeamCostReport.StatedUseView> read(Tables tables) {
        List<Line<UseRow>> lines = tables.lines(USE);
        if (lines.size() > 1) {
            tables.faults().add(lines.get(1).at(), null, "one row at most", null);
        }
        return lines.stream()
                .map(Line::row)
                .findFirst()
                .map(r -> new TeamCostReport.StatedUseView(
                        new TeamUse(r.people(), r.tasksPerDay(), r.daysPerMonth()), r.at(), r.by()));
    }

    public static void write(TeamCostReport.@Nullable StatedUseView stated, WrittenFiles out) {
        if (stated != null) {
            out.add(
                    USE,
                    new UseRow(
                            stated.use().people(),
                            stated.use().tasksPerDay(),
                            stated.use().daysPerMonth(),
                            stated.at(),
                            stated.by()));
        }
    }
}
