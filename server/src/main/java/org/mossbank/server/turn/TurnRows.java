package org.mossbank.server.turn;

import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.List;
import java.util.function.ToIntFunction;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.turns.TurnVerdict;
import org.mossbank.server.answer.FollowUp;
import org.mossbank.server.files.Column;
import org.mossbank.server.files.Keys;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.NewIds;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.TableForm;
import org.mossbank.server.files.Tables;
import org.mossbank.server.files.WrittenFiles;

/** What was found of replies, as a table of the open format. */
public final class TurnRows {
    @TableForm(
            name = "turn-verdicts",
            meaning = "Whether replies do what was asked, as a lead found before the round.",
            key = {"answer", "turn"})
    record VerdictRow(
            @Column(value = "The answer", in = "answers.answer") @NotNull
            String answer,

            @Column("Which reply: 0 for the first, then the follow-ups") @Min(0) @Max(FollowUp.MOST)
            int turn,

            @Column("Whether it does what was asked; where it does not, whether it gave up or said that it was done")
            @NotNull
            TurnVerdict verdict,

            @Column("When, ISO 8601 with zone") @NotNull Instant at,

            @Column("Name of who found it") @NotNull @Size(min = 1, max = 200)
            String by) {}

    private static final Table<VerdictRow> VERDICTS = Table.of(VerdictRow.class);

    public static final List<Table<?>> TABLES = List.of(VERDICTS);

    private TurnRows() {}

    /** By the answer's key. */
    public record KeyedVerdict(String answer, int turn, TurnVerdict verdict, Instant at, String by) {
        public static KeyedVerdict of(Turns.Said said, Keys keys) {
            return new KeyedVerdict(keys.of(said.answerId()), said.turn(), said.verdict(), said.at(), said.by());
        }

        /** As it is kept. */
        public Turns.Said kept(NewIds ids) {
            return new Turns.Said(Require.known(ids.answers(), answer), turn, verdict, at, by);
        }
    }

    /** @param turns how many follow-ups an answer has, by its key; whatever has more is told with the faults */
    public static List<KeyedVerdict> read(Tables tables, ToIntFunction<String> turns) {
        return tables.lines(VERDICTS).stream()
                .peek(l -> {
                    if (l.row().turn() > turns.applyAsInt(l.row().answer())) {
                        tables.faults()
                                .add(
                                        l.at(),
                                        "turn",
                                        "a reply that the answer has",
                                        String.valueOf(l.row().turn()));
                    }
                })
                .map(Line::row)
                .map(r -> new KeyedVerdict(r.answer(), r.turn(), r.verdict(), r.at(), r.by()))
                .toList();
    }

    public static void write(KeyedVerdict verdict, WrittenFiles out) {
        out.add(
                VERDICTS,
                new VerdictRow(verdict.answer(), verdict.turn(), verdict.verdict(), verdict.at(), verdict.by()));
    }
}
