package org.mossbank.server.answer;

import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.files.As;
import org.mossbank.server.files.Column;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.TableForm;
import org.mossbank.server.files.TableRow;
import org.mossbank.server.files.Tables;
import org.mossbank.server.files.WrittenFiles;
import org.mossbank.server.shared.CurrencyCode;

/** Answers as rows of the open format, with their texts in files of their own. */
public final class AnswerRows {
    @TableForm(
            name = "answers",
            meaning = "What each candidate gave to each prompt.",
            key = "answer",
            unique = {"prompt", "candidate", "attempt"})
    record AnswerRow(
            @Column(value = "Key of the answer", key = true) String answer,

            @Column(value = "The prompt", in = "prompts.prompt") @NotNull
            String prompt,

            @Column(value = "The candidate", in = "candidates.candidate") @NotNull
            String candidate,

            @Column("Which attempt, from 1") @Min(1) @Max(1000)
            int attempt,

            @Column("How it ended") @NotNull Outcome outcome,

            @Column("Path in the archive of the text, Markdown in UTF-8; may be empty unless the outcome is complete")
            @Nullable
            String file,

            @Column("Milliseconds to the first output; empty if not measured") @As(Measures.class) @Nullable
            Long firstOutputMs,

            @Column("Milliseconds in all; empty if not measured") @As(Measures.class) @Nullable
            Long totalMs,

            @Column("Tokens sent; empty if not measured") @As(Measures.class) @Nullable
            Long inputTokens,

            @Column("Tokens received; empty if not measured") @As(Measures.class) @Nullable
            Long outputTokens,

            @Column("Cost in units of the currency, at most six decimals; empty if not known")
            @As(Measures.class)
            @Nullable
            BigDecimal cost,

            @Column("ISO 4217 code; given if and only if there is a cost")
            @Pattern(regexp = CurrencyCode.FORM)
            @Nullable
            String currency,

            @Column("Whether token counts and cost are estimates, because no count was given; empty if not")
            boolean estimated,

            @Column("How often it was asked until something came; empty if nobody counted") @Min(1) @Max(1000) @Nullable
            Integer tries) {}

    @TableForm(
            name = "turns",
            meaning = "What candidates were told after their first reply, and what they replied.",
            key = {"answer", "place"})
    public record TurnRow(
            @Column(value = "The answer", in = "answers.answer") @NotNull
            String answer,

            @Column("Which follow-up, from 1") @Min(1) @Max(FollowUp.MOST)
            int place,

            @Column("What it was told, Markdown") @As(FollowUp.class) @NotNull
            String asked,

            @Column("What it replied, Markdown; empty if nothing came") @As(FollowUp.class)
            String reply) {}

    public static final Table<AnswerRow> ANSWERS = Table.of(AnswerRow.class);
    public static final Table<TurnRow> TURNS = Table.of(TurnRow.class);

    /** In the order in which they are written. */
    public static final List<Table<?>> TABLES = List.of(ANSWERS, TURNS);

    private final Tables tables;
    private final Map<String, List<Line<TurnRow>>> turns;

    private AnswerRows(Tables tables) {
        this.tables = tables;
        this.turns = tables.by(TURNS, TurnRow::answer);
    }

    /** Answers by the keys of what they belong to. */
    public static List<Answers.NewAnswer> read(Tables tables) {
        AnswerRows rows = new AnswerRows(tables);
        List<Answers.NewAnswer> answers = new ArrayList<>();
        tables.lines(ANSWERS).forEach(l -> answers.add(rows.answer(l.row(), l.at())));
        return answers;
    }

    private Answers.NewAnswer answer(AnswerRow row, TableRow at) {
        Optional<String> text = tables.text(at, "file");
        if (row.outcome() == Outcome.COMPLETE && text.filter(t -> !t.isBlank()).isEmpty()) {
            tables.faults().add(at, "file", "a file with text, as the answer is complete", row.file());
        }
        if ((row.cost() == null) != (row.currency() == null)) {
            tables.faults().add(at, "currency", "a currency if and only if there is a cost", row.currency());
        }
        return new Answers.NewAnswer(
                row.answer(),
                row.prompt(),
                row.candidate(),
                row.attempt(),
                row.outcome(),
                text.orElse(""),
                tables.inPlaces(turns.get(row.answer()), TurnRow::place).stream()
                        .map(t -> new FollowUp(t.asked(), t.reply()))
                        .toList(),
                new Measures(
                        row.firstOutputMs(),
                        row.totalMs(),
                        row.inputTokens(),
                        row.outputTokens(),
                        row.cost(),
                        row.currency(),
                        row.estimated(),
                        row.tries()));
    }

    public static void write(Answers.NewAnswer answer, WrittenFiles out) {
        Measures measures = answer.measures();
        String file = "answers/" + answer.key() + ".md";
        out.add(
                ANSWERS,
                new AnswerRow(
                        answer.key(),
                        answer.prompt(),
                        answer.candidate(),
                        answer.attempt(),
                        answer.outcome(),
                        answer.text().isEmpty() ? null : file,
                        measures.firstOutputMs(),
                        measures.totalMs(),
                        measures.inputTokens(),
                        measures.outputTokens(),
                        measures.cost(),
                        measures.currency(),
                        measures.estimated(),
                        measures.tries()));
        if (!answer.text().isEmpty()) {
            out.put(file, answer.text());
        }
        int place = 1;
        for (FollowUp turn : answer.followUps()) {
            out.add(TURNS, new TurnRow(answer.key(), place++, turn.asked(), turn.reply()));
        }
    }
}
