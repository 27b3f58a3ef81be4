package org.mossbank.server.collection;

import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.math.BigDecimal;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.answer.FollowUp;
import org.mossbank.server.answer.Measures;
import org.mossbank.server.answer.Outcome;
import org.mossbank.server.candidate.CandidateContent;
import org.mossbank.server.files.As;
import org.mossbank.server.files.Column;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.TableForm;
import org.mossbank.server.prompt.PromptContent;
import org.mossbank.server.shared.CurrencyCode;

/** A row of a table of answers. */
@TableForm(name = "answer-table", meaning = "Answers to bring into a study, one a row.")
record AnswerTableRow(
        @Column("Key or title of the prompt") @As(value = PromptContent.class, property = "title") @NotNull
        String prompt,

        @Column("Key or name of the candidate") @As(value = CandidateContent.class, property = "name") @NotNull
        String candidate,

        @Column("Which attempt; empty, the next one") @Min(1) @Max(1000) @Nullable
        Integer attempt,

        @Column("How it ended; empty, complete") @Nullable Outcome outcome,

        @Column("The answer, Markdown") @Size(max = FollowUp.LONGEST_REPLY)
        String text,

        @Column("What the text is; empty for Markdown") AnswerTableRow.@Nullable TextForm form,

        @Column("Milliseconds to the first output") @Min(0) @Max(MOST_COUNTED) @Nullable
        Long firstOutputMs,

        @Column("Milliseconds in all") @Min(0) @Max(MOST_COUNTED) @Nullable
        Long totalMs,

        @Column("Tokens sent") @Min(0) @Max(MOST_COUNTED) @Nullable
        Long inputTokens,

        @Column("Tokens received") @Min(0) @Max(MOST_COUNTED) @Nullable
        Long outputTokens,

        @Column("What it cost, in the currency, six decimals at most") @As(Measures.class) @Nullable
        BigDecimal cost,

        @Column("ISO 4217, such as EUR; with a cost, and only with one") @Pattern(regexp = CurrencyCode.FORM) @Nullable
        String currency,

        @Column("Whether token counts and cost are estimates, because no count was given; empty if not")
        boolean estimated,

        @Column("How often it was asked until something came; empty if nobody counted") @Min(1) @Max(1000) @Nullable
        Integer tries,

        @Column("What the service said had answered") @As(Measures.class) @Nullable
        String model) {
    static final Table<AnswerTableRow> TABLE = Table.of(AnswerTableRow.class);

    /** Beyond it nobody has counted. */
    private static final long MOST_COUNTED = 1_000_000_000_000L;

    /** What a text is. */
    enum TextForm {
        MARKDOWN,
        DIFF
    }

    boolean isDiff() {
        return form == TextForm.DIFF;
    }

    Measures measures() {
        return new Measures(firstOutputMs, totalMs, inputTokens, outputTokens, cost, currency, estimated, tries, model);
    }
}
