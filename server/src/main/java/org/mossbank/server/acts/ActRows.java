package org.mossbank.server.acts;

import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.decision.Outcome;
import org.mossbank.server.files.Column;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.TableForm;
import org.mossbank.server.files.Tables;
import org.mossbank.server.files.WrittenFiles;

/** The record of acts, as rows of the open format. */
public final class ActRows {
    @TableForm(name = "acts", meaning = "What people did that may change the outcome, oldest first.")
    record ActRow(
            @Column("What was done") @NotNull ActSort sort,

            @Column("What it was done to, in words; may be empty") @Size(max = 300)
            String subject,

            @Column("Why; may be empty where none is asked") @Size(max = 4000)
            String reason,

            @Column("Name of who did it") @NotNull @Size(min = 1, max = 200)
            String by,

            @Column("When, ISO 8601 with zone") @NotNull Instant at,

            @Column("true if they could see then which candidate wrote what")
            boolean namesKnown,

            @Column("Outcome just before; empty where there was none yet") @Nullable
            Outcome before,

            @Column("The same in a sentence") @Size(max = 2000) @Nullable
            String headlineBefore,

            @Column("Outcome just after") @Nullable Outcome after,

            @Column("The same in a sentence") @Size(max = 2000) @Nullable
            String headlineAfter) {
        ActView view() {
            return new ActView(
                    sort,
                    subject,
                    reason,
                    by,
                    at,
                    namesKnown,
                    told(before, headlineBefore),
                    told(after, headlineAfter));
        }

        private static OutcomeTeller.@Nullable Told told(@Nullable Outcome outcome, @Nullable String headline) {
            return outcome == null ? null : new OutcomeTeller.Told(outcome, headline == null ? "" : headline);
        }
    }

    private static final Table<ActRow> ACTS = Table.of(ActRow.class);

    public static final List<Table<?>> TABLES = List.of(ACTS);

    private ActRows() {}

    public static List<ActView> read(Tables tables) {
        return tables.lines(ACTS).stream().map(Line::row).map(ActRow::view).toList();
    }

    public static void write(List<ActView> acts, WrittenFiles out) {
        for (ActView act : acts) {
            OutcomeTeller.Told before = act.before();
            OutcomeTeller.Told after = act.after();
            out.add(
                    ACTS,
                    new ActRow(
                            act.sort(),
                            act.subject(),
                            act.reason(),
                            act.by(),
                            act.at(),
                            act.namesKnown(),
                            before == null ? null : before.outcome(),
                            before == null ? null : before.headline(),
                            after == null ? null : after.outcome(),
                            after == null ? null : after.headline()));
        }
    }
}
