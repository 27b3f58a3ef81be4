package org.mossbank.server.reconciliation.rows;

import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.files.Column;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.TableForm;
import org.mossbank.server.files.WrittenFiles;
import org.mossbank.server.reconciliation.Reconciliations;
import org.mossbank.server.reconciliation.SplitClosing;

/** Talks about splits as rows of the open format; {@link SplitReader} reads them. */
public final class SplitRows {
    /** A row about a split. */
    interface OfSplit {
        String answer();

        String criterion();
    }

    @TableForm(
            name = "splits",
            meaning = "Answers and criteria on which raters lay apart and which they talked about.",
            key = {"answer", "criterion"})
    record SplitRow(
            @Column(value = "The answer", in = "answers.answer") @NotNull
            String answer,

            @Column(value = "The criterion", in = "criteria.criterion") @NotNull
            String criterion,

            @Column("When it was taken up, ISO 8601 with zone") @NotNull
            Instant takenUpAt,

            @Column("Name of who took it up") @NotNull @Size(min = 1, max = 200)
            String takenUpBy,

            @Column("How far it has got") @NotNull SplitClosing.State state,

            @Column("Who ended it; empty while it is open") SplitClosing.@Nullable How how,

            @Column("The settled grade in levels, a median perhaps between two; empty unless it is settled")
            @DecimalMin("0")
            @DecimalMax("9")
            @Nullable
            Double level,

            @Column("Name of who ended it, or all the raters; empty while it is open") @Size(max = 200) @Nullable
            String closedBy,

            @Column("When it ended, ISO 8601 with zone; empty while it is open") @Nullable
            Instant closedAt,

            @Column("Why; may be empty where none is asked") @Size(max = 2000)
            String reason,

            @Column("true if whoever ended it could see then which candidate wrote the answer")
            boolean namesKnown)
            implements OfSplit {}

    @TableForm(name = "split-words", meaning = "What was said about splits, oldest first.")
    record WordRow(
            @Column(value = "The split's answer", in = "answers.answer") @NotNull
            String answer,

            @Column(value = "The split's criterion", in = "criteria.criterion") @NotNull
            String criterion,

            @Column(value = "Key of the rater who said it; empty for the lead", in = "raters.rater") @Nullable
            String rater,

            @Column("When, ISO 8601 with zone") @NotNull Instant saidAt,

            @Column("What was said") @NotNull @Size(min = 1, max = 4000)
            String words,

            @Column("true if whoever said it could see then which candidate wrote the answer")
            boolean namesKnown)
            implements OfSplit {}

    @TableForm(
            name = "split-stances",
            meaning = "At which level raters stood after the talk, oldest first; their grades stay as they gave them.")
    record StanceRow(
            @Column(value = "The split's answer", in = "answers.answer") @NotNull
            String answer,

            @Column(value = "The split's criterion", in = "criteria.criterion") @NotNull
            String criterion,

            @Column(value = "The rater", in = "raters.rater") @NotNull
            String rater,

            @Column("When, ISO 8601 with zone") @NotNull Instant takenAt,

            @Column("The level, from 0") @Min(0) @Max(9) int level,

            @Column("Why") @NotNull @Size(min = 1, max = 2000)
            String reason,

            @Column("true if they could see then which candidate wrote the answer")
            boolean namesKnown)
            implements OfSplit {}

    @TableForm(
            name = "split-looks",
            meaning = "Looks at the answer of a split by raters who saw no grades of it.",
            key = {"answer", "criterion", "rater"})
    record LookRow(
            @Column(value = "The split's answer", in = "answers.answer") @NotNull
            String answer,

            @Column(value = "The split's criterion", in = "criteria.criterion") @NotNull
            String criterion,

            @Column(value = "The rater", in = "raters.rater") @NotNull
            String rater,

            @Column("When they were asked, ISO 8601 with zone") @NotNull
            Instant askedAt,

            @Column("Name of who asked") @NotNull @Size(min = 1, max = 200)
            String askedBy,

            @Column("The level, from 0; empty until it is given") @Min(0) @Max(9) @Nullable
            Integer level,

            @Column("Why; with a level or not at all") @Size(max = 2000) @Nullable
            String reason,

            @Column("When it was given, ISO 8601 with zone; with a level or not at all") @Nullable
            Instant givenAt)
            implements OfSplit {}

    static final Table<SplitRow> SPLITS = Table.of(SplitRow.class);
    static final Table<WordRow> WORDS = Table.of(WordRow.class);
    static final Table<StanceRow> STANCES = Table.of(StanceRow.class);
    static final Table<LookRow> LOOKS = Table.of(LookRow.class);

    public static final List<Table<?>> TABLES = List.of(SPLITS, WORDS, STANCES, LOOKS);

    private SplitRows() {}

    public static void write(KeyedSplit split, WrittenFiles out) {
        SplitClosing closing = split.closing();
        out.add(
                SPLITS,
                new SplitRow(
                        split.answer(),
                        split.criterion(),
                        split.takenUpAt(),
                        split.takenUpBy(),
                        closing == null ? SplitClosing.State.OPEN : closing.state(),
                        closing == null ? null : closing.how(),
                        closing == null ? null : closing.level(),
                        closing == null ? null : closing.by(),
                        closing == null ? null : closing.at(),
                        closing == null ? "" : closing.reason(),
                        closing != null && closing.namesKnown()));
        split.words()
                .forEach(w -> out.add(
                        WORDS,
                        new WordRow(split.answer(), split.criterion(), w.rater(), w.at(), w.words(), w.namesKnown())));
        split.stances()
                .forEach(s -> out.add(
                        STANCES,
                        new StanceRow(
                                split.answer(),
                                split.criterion(),
                                s.rater(),
                                s.at(),
                                s.level(),
                                s.reason(),
                                s.namesKnown())));
        split.looks().forEach(l -> {
            Reconciliations.Given given = l.given();
            out.add(
                    LOOKS,
                    new LookRow(
                            split.answer(),
                            split.criterion(),
                            l.rater(),
                            l.askedAt(),
                            l.askedBy(),
                            given == null ? null : given.level(),
                            given == null ? null : given.reason(),
                            given == null ? null : given.at()));
        });
    }
}
