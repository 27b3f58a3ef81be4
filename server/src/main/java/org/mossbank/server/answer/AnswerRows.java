package org.mossbank.server.answer;

import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.math.BigDecimal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.answer.specimen.SpecimenView;
import org.mossbank.server.answer.specimen.Specimens;
import org.mossbank.server.files.As;
import org.mossbank.server.files.Column;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.TableForm;
import org.mossbank.server.files.TableRow;
import org.mossbank.server.files.Tables;
import org.mossbank.server.files.WrittenFiles;
import org.mossbank.server.shared.CurrencyCode;
import org.mossbank.server.shared.FreeKey;

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

            @Column(
                    value = "The candidate; empty for a specimen, an answer that a kept prompt brings along",
                    in = "candidates.candidate")
            @Nullable
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
            Integer tries,

            @Column("What the service said had answered; of turns that differ, each, with ; between them")
            @As(Measures.class)
            @Nullable
            String model) {}

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

    @TableForm(
            name = "specimen-levels",
            meaning = "At which levels specimens should stand, as it was said where they were kept.",
            key = {"answer", "criterion"})
    record SpecimenLevelRow(
            @Column(value = "The specimen: an answer without a candidate", in = "answers.answer") @NotNull
            String answer,

            @Column("Key of the criterion; the rubric need not have it") @NotNull @Pattern(regexp = FreeKey.FORM)
            String criterion,

            @Column("The level, from 0") @Min(0) @Max(9) int level,

            @Column("The criterion's highest level where it was said") @Min(1) @Max(9)
            int highestLevel,

            @Column("Why") @NotNull @Size(min = 1, max = 2000)
            String reason,

            @Column("Name of who said it") @NotNull @Size(min = 1, max = 200)
            String saidBy,

            @Column("When, ISO 8601 with zone") @NotNull Instant saidAt) {}

    public static final Table<AnswerRow> ANSWERS = Table.of(AnswerRow.class);
    public static final Table<TurnRow> TURNS = Table.of(TurnRow.class);
    static final Table<SpecimenLevelRow> SPECIMEN_LEVELS = Table.of(SpecimenLevelRow.class);

    /** In the order in which they are written. */
    public static final List<Table<?>> TABLES = List.of(ANSWERS, TURNS, SPECIMEN_LEVELS);

    private final Tables tables;
    private final Map<String, List<Line<TurnRow>>> turns;
    private final Map<String, List<Line<SpecimenLevelRow>>> levels;

    private AnswerRows(Tables tables) {
        this.tables = tables;
        this.turns = tables.by(TURNS, TurnRow::answer);
        this.levels = tables.by(SPECIMEN_LEVELS, SpecimenLevelRow::answer);
    }

    /** Answers by the keys of what they belong to. */
    public static List<Answers.NewAnswer> read(Tables tables) {
        AnswerRows rows = new AnswerRows(tables);
        List<Answers.NewAnswer> answers = new ArrayList<>();
        for (Line<AnswerRow> line : tables.lines(ANSWERS)) {
            String candidate = line.row().candidate();
            if (candidate != null) {
                answers.add(rows.answer(line.row(), candidate, line.at()));
            }
        }
        return answers;
    }

    /** Answers of no candidate. */
    public static List<Specimens.NewSpecimen> readSpecimens(Tables tables) {
        AnswerRows rows = new AnswerRows(tables);
        List<Specimens.NewSpecimen> specimens = new ArrayList<>();
        for (Line<AnswerRow> line : tables.lines(ANSWERS)) {
            if (line.row().candidate() == null) {
                specimens.add(rows.specimen(line.row(), line.at()));
            }
        }
        Set<String> known = specimens.stream().map(Specimens.NewSpecimen::key).collect(Collectors.toSet());
        tables.lines(SPECIMEN_LEVELS).stream()
                .filter(l -> !known.contains(l.row().answer()))
                .forEach(l -> tables.faults()
                        .add(
                                l.at(),
                                "answer",
                                "an answer without a candidate",
                                l.row().answer()));
        return specimens;
    }

    private Specimens.NewSpecimen specimen(AnswerRow row, TableRow at) {
        String text = tables.text(at, "file").orElse("");
        if (text.isBlank() || row.outcome() != Outcome.COMPLETE) {
            tables.faults().add(at, "candidate", "a candidate, unless the answer is complete and has a text", null);
        }
        if (!turns.getOrDefault(row.answer(), List.of()).isEmpty()) {
            tables.faults().add(at, "candidate", "a candidate, as the answer has follow-ups", null);
        }
        return new Specimens.NewSpecimen(
                row.answer(),
                row.prompt(),
                row.attempt(),
                text,
                levels.getOrDefault(row.answer(), List.of()).stream()
                        .map(this::level)
                        .toList());
    }

    private SpecimenView.SpecimenLevel level(Line<SpecimenLevelRow> line) {
        SpecimenLevelRow row = line.row();
        if (row.level() > row.highestLevel()) {
            tables.faults().add(line.at(), "level", "at most highest_level", String.valueOf(row.level()));
        }
        return new SpecimenView.SpecimenLevel(
                row.criterion(), row.level(), row.highestLevel(), row.reason(), row.saidBy(), row.saidAt());
    }

    private Answers.NewAnswer answer(AnswerRow row, String candidate, TableRow at) {
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
                candidate,
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
                        row.tries(),
                        row.model()));
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
                        measures.tries(),
                        measures.model()));
        if (!answer.text().isEmpty()) {
            out.put(file, answer.text());
        }
        int place = 1;
        for (FollowUp turn : answer.followUps()) {
            out.add(TURNS, new TurnRow(answer.key(), place++, turn.asked(), turn.reply()));
        }
    }

    public static void write(Specimens.NewSpecimen specimen, WrittenFiles out) {
        String file = "answers/" + specimen.key() + ".md";
        out.add(
                ANSWERS,
                new AnswerRow(
                        specimen.key(),
                        specimen.prompt(),
                        null,
                        specimen.place(),
                        Outcome.COMPLETE,
                        file,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        false,
                        null,
                        null));
        out.put(file, specimen.text());
        specimen.levels()
                .forEach(l -> out.add(
                        SPECIMEN_LEVELS,
                        new SpecimenLevelRow(
                                specimen.key(),
                                l.criterion(),
                                l.level(),
                                l.highestLevel(),
                                l.reason(),
                                l.by(),
                                l.at())));
    }
}
