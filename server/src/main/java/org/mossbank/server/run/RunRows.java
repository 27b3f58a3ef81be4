package org.mossbank.server.run;

import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Digits;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.math.BigDecimal;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.answer.FollowUp;
import org.mossbank.server.files.As;
import org.mossbank.server.files.Column;
import org.mossbank.server.files.Keys;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.NewIds;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.TableForm;
import org.mossbank.server.files.Tables;
import org.mossbank.server.files.WrittenFiles;
import org.mossbank.server.shared.CurrencyCode;

/** Runs and their cells as rows of the open format. */
public final class RunRows {
    /** How a run stands when it is written: one that goes on is paused where it is read. */
    enum RunState {
        PAUSED,
        FINISHED
    }

    @TableForm(name = "runs", meaning = "Runs in which candidates were asked over their sources.", key = "run")
    record RunRow(
            @Column(value = "Key of the run", key = true) String run,

            @Column("Who started it") @Size(max = Accounts.LONGEST_NAME) @NotNull
            String startedBy,

            @Column("When") @NotNull Instant startedAt,

            @Column("How often each was asked") @As(StartRun.class)
            int attempts,

            @Column("How many of the prepared follow-ups were asked at most") @As(StartRun.class)
            int followUps,

            @Column("What it may cost at most, at most six decimals; empty for no limit") @As(StartRun.class) @Nullable
            BigDecimal budgetCost,

            @Column("Tokens at most; empty for no limit") @As(StartRun.class) @Nullable
            Long budgetTokens,

            @Column("ISO 4217 code of all amounts; empty if no candidate has a price")
            @Pattern(regexp = CurrencyCode.FORM)
            @Nullable
            String currency,

            @Column("Whether everything was asked") @NotNull RunState state,

            @Column("Why it does not go on") @Size(max = 2000)
            String reason) {}

    @TableForm(
            name = "run-cells",
            meaning = "What runs asked: one prompt for one candidate, once.",
            key = {"run", "place"})
    record CellRow(
            @Column(value = "The run", in = "runs.run") @NotNull
            String run,

            @Column("Which one, from 1, in the order of asking") @Min(1)
            int place,

            @Column("Cells of one group were asked close together in time; from 0") @Min(0)
            int group,

            @Column(value = "The prompt", in = "prompts.prompt") @NotNull
            String prompt,

            @Column(value = "The candidate", in = "candidates.candidate") @NotNull
            String candidate,

            @Column("Which attempt it was meant to be, from 1") @Min(1)
            int attempt,

            @Column("waiting, done with an answer, or turned-away: nothing came and nothing was paid") @NotNull
            CellState state,

            @Column("What was asked in place of the prepared follow-up, for this answer alone; empty if nothing")
            @As(value = FollowUpRuns.AskFollowUp.class, property = "asked")
            @Nullable
            String ownFollowUp,

            @Column("How far it came: 0 for the first reply, then the follow-ups") @Min(0) @Max(FollowUp.MOST)
            int turn,

            @Column("How often that was tried") @Min(0) int tries,

            @Column("What counts against the budget, at most six decimals")
            @DecimalMin("0")
            @Digits(integer = 8, fraction = 6)
            @NotNull
            BigDecimal spentCost,

            @Column("Tokens that count against the budget") @Min(0)
            long spentTokens,

            @Column("What happened, a line each") String notes,

            @Column(
                    "What the service replied after the cell had been written down already; it counts for nothing and is kept.")
            @Nullable
            String lateReply,

            @Column(value = "The answer that came; empty if none, or if it was removed since", in = "answers.answer")
            @Nullable
            String answer) {}

    private static final Table<RunRow> RUNS = Table.of(RunRow.class);
    private static final Table<CellRow> CELLS = Table.of(CellRow.class);

    /** In the order in which they are written. */
    public static final List<Table<?>> TABLES = List.of(RUNS, CELLS);

    private RunRows() {}

    /** A run with its cells in their order; what they are about by its keys. */
    public record KeyedRun(Runs.RunHead head, List<KeyedCell> cells) {
        public static KeyedRun of(Runs.RunRecord run, Keys keys) {
            return new KeyedRun(
                    run.head(),
                    run.cells().stream().map(c -> KeyedCell.of(c, keys)).toList());
        }

        /** As it is kept. */
        public Runs.RunRecord kept(NewIds ids) {
            return new Runs.RunRecord(head, cells.stream().map(c -> c.kept(ids)).toList());
        }
    }

    /** @param answer key; absent if there is none */
    public record KeyedCell(
            int group,
            String prompt,
            String candidate,
            int attempt,
            CellState state,
            @Nullable String ownFollowUp,
            int turn,
            int tries,
            BigDecimal spentCost,
            long spentTokens,
            String notes,
            @Nullable String lateReply,
            @Nullable String answer) {
        private static KeyedCell of(Runs.CellRecord cell, Keys keys) {
            return new KeyedCell(
                    cell.group(),
                    keys.of(cell.promptId()),
                    keys.of(cell.candidateId()),
                    cell.attempt(),
                    cell.state(),
                    cell.ownFollowUp(),
                    cell.turn(),
                    cell.tries(),
                    cell.spentCost(),
                    cell.spentTokens(),
                    cell.notes(),
                    cell.lateReply(),
                    keys.orNone(cell.answerId()));
        }

        private Runs.CellRecord kept(NewIds ids) {
            return new Runs.CellRecord(
                    group,
                    Require.known(ids.prompts(), prompt),
                    Require.known(ids.candidates(), candidate),
                    attempt,
                    state,
                    ownFollowUp,
                    turn,
                    tries,
                    spentCost,
                    spentTokens,
                    notes,
                    lateReply,
                    ids.answer(answer));
        }
    }

    public static List<KeyedRun> read(Tables tables) {
        Map<String, List<Line<CellRow>>> cells = tables.by(CELLS, CellRow::run);
        return tables.lines(RUNS).stream()
                .map(l -> new KeyedRun(
                        head(l.row()),
                        tables.inPlaces(cells.get(l.row().run()), CellRow::place).stream()
                                .map(RunRows::cell)
                                .toList()))
                .toList();
    }

    private static Runs.RunHead head(RunRow row) {
        return new Runs.RunHead(
                row.run(),
                row.startedBy(),
                row.startedAt(),
                row.attempts(),
                row.followUps(),
                row.budgetCost(),
                row.budgetTokens(),
                row.currency(),
                row.state() == RunState.FINISHED,
                row.reason());
    }

    private static KeyedCell cell(CellRow row) {
        return new KeyedCell(
                row.group(),
                row.prompt(),
                row.candidate(),
                row.attempt(),
                row.state(),
                row.ownFollowUp(),
                row.turn(),
                row.tries(),
                row.spentCost(),
                row.spentTokens(),
                row.notes(),
                row.lateReply(),
                row.answer());
    }

    public static void write(KeyedRun run, WrittenFiles out) {
        Runs.RunHead head = run.head();
        out.add(
                RUNS,
                new RunRow(
                        head.key(),
                        head.startedBy(),
                        head.startedAt(),
                        head.attempts(),
                        head.followUps(),
                        head.budgetCost(),
                        head.budgetTokens(),
                        head.currency(),
                        head.finished() ? RunState.FINISHED : RunState.PAUSED,
                        head.reason()));
        int place = 1;
        for (KeyedCell cell : run.cells()) {
            out.add(
                    CELLS,
                    new CellRow(
                            head.key(),
                            place++,
                            cell.group(),
                            cell.prompt(),
                            cell.candidate(),
                            cell.attempt(),
                            cell.state(),
                            cell.ownFollowUp(),
                            cell.turn(),
                            cell.tries(),
                            cell.spentCost(),
                            cell.spentTokens(),
                            cell.notes(),
                            cell.lateReply(),
                            cell.answer()));
        }
    }
}
