package org.mossbank.server.grading.rows;

import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import java.time.Instant;
import java.util.List;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.files.As;
import org.mossbank.server.files.Column;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.TableForm;
import org.mossbank.server.files.WrittenFiles;
import org.mossbank.server.grading.Confidence;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.Mark;
import org.mossbank.server.grading.RemarkContent;
import org.mossbank.server.grading.Verdict;
import org.mossbank.server.grading.Withdraw;
import org.mossbank.server.grading.Works;
import org.mossbank.server.grading.desk.DeskRequests;
import org.mossbank.server.prompt.PromptContent;
import org.mossbank.server.rubric.CriterionContent;

/** Sheets and what stands on them as rows of the open format; {@link SheetReader} reads them. */
public final class SheetRows {
    /** A row about an answer on a sheet. */
    interface OnSheet {
        String rater();

        String answer();

        boolean repeat();
    }

    @TableForm(
            name = "sheets",
            meaning =
                    "Which rater grades which prompt, and when. Without this table every rater gets every prompt but their own, in an order drawn from the seed.",
            key = {"rater", "prompt", "repeat"},
            unique = {"rater", "place"})
    record SheetRow(
            @Column(value = "The rater", in = "raters.rater") @NotNull
            String rater,

            @Column(value = "The prompt", in = "prompts.prompt") @NotNull
            String prompt,

            @Column("When this rater gets it, from 1") @Min(1)
            int place,

            @Column("When it was sent in, ISO 8601 with zone; empty while it is being worked on") @Nullable
            Instant sentAt,

            @Column("true if it is the sheet that came a second time; otherwise empty or false")
            boolean repeat,

            @Column(
                    "The published version of the rubric that raters calibrate by; for prompts of a calibration and no others")
            @Min(1)
            @Nullable
            Integer rubricVersion,

            @Column(
                    "When the lead withdrew it, ISO 8601 with zone; empty unless they did. What is on it counts nowhere")
            @Nullable
            Instant withdrawnAt,

            @Column("Why it was withdrawn") @As(value = Withdraw.class, property = "reason")
            String withdrawnReason) {}

    @TableForm(
            name = "positions",
            meaning =
                    "At which place each answer stands on a sheet. Answers to the prompt that are not listed are not on it. Without rows for a sheet, all are, in an order drawn from the seed.",
            key = {"rater", "answer", "repeat"})
    record PositionRow(
            @Column(value = "The rater", in = "raters.rater") @NotNull
            String rater,

            @Column(value = "The answer", in = "answers.answer") @NotNull
            String answer,

            @Column("Place on the sheet, from 1") @Min(1) int position,

            @Column("true if it is the sheet that came a second time; otherwise empty or false")
            boolean repeat)
            implements OnSheet {}

    @TableForm(
            name = "grades",
            meaning = "The grades given so far. Leave the table out for a study that nobody has graded.",
            key = {"rater", "answer", "criterion", "repeat"})
    record GradeRow(
            @Column(value = "The rater", in = "raters.rater") @NotNull
            String rater,

            @Column(value = "The answer", in = "answers.answer") @NotNull
            String answer,

            @Column(value = "The criterion", in = "criteria.criterion") @NotNull
            String criterion,

            @Column("The level; empty if not applicable") @Min(0) @Max(CriterionContent.HIGHEST_LEVEL) @Nullable
            Integer level,

            @Column("true if the criterion does not apply to this answer; otherwise empty or false")
            boolean notApplicable,

            @Column("true if it is the sheet that came a second time; otherwise empty or false")
            boolean repeat,

            @Column("How sure the rater is; empty if they did not say") @Nullable
            Confidence confidence)
            implements OnSheet {}

    @TableForm(
            name = "reasons",
            meaning = "Why a rater graded an answer so.",
            key = {"rater", "answer", "repeat"})
    record ReasonRow(
            @Column(value = "The rater", in = "raters.rater") @NotNull
            String rater,

            @Column(value = "The answer", in = "answers.answer") @NotNull
            String answer,

            @Column("The reason") @As(DeskRequests.SetReason.class) @NotNull
            String text,

            @Column("true if it is the sheet that came a second time; otherwise empty or false")
            boolean repeat)
            implements OnSheet {}

    @TableForm(
            name = "judgements",
            meaning = "What a rater says of an answer as a whole.",
            key = {"rater", "answer", "repeat"})
    record JudgementRow(
            @Column(value = "The rater", in = "raters.rater") @NotNull
            String rater,

            @Column(value = "The answer", in = "answers.answer") @NotNull
            String answer,

            @Column("Whether its code works, as the rater found it; empty if they did not say") @Nullable
            Works works,

            @Column("Why the rater says otherwise than trials of its code do; empty if they did not say")
            @As(value = DeskRequests.SetWorks.class, property = "why")
            @Nullable
            String worksWhy,

            @Column("Its place in the order of preference on the sheet, from 1; equal places are ties")
            @As(value = DeskRequests.SetPreference.class, property = "place")
            @Nullable
            Integer preference,

            @Column(value = "The candidate that the rater takes for its author", in = "candidates.candidate") @Nullable
            String guess,

            @Column("true if the rater was asked and has no guess; otherwise empty or false")
            boolean noIdea,

            @Column("How long the rater looked at it, in milliseconds; empty if that was not measured")
            @As(value = DeskRequests.AnswerTime.class, property = "ms")
            @Nullable
            Long activeMs,

            @Column("true if it is the sheet that came a second time; otherwise empty or false")
            boolean repeat)
            implements OnSheet {}

    @TableForm(
            name = "coverage",
            meaning = "How far answers hold the key points of their prompt, as raters found.",
            key = {"rater", "answer", "point", "repeat"})
    record CoverageRow(
            @Column(value = "The rater", in = "raters.rater") @NotNull
            String rater,

            @Column(value = "The answer", in = "answers.answer") @NotNull
            String answer,

            @Column("Which key point of the prompt, from 1 in the order of key-points")
            @As(value = PromptContent.class, property = "keyPoints", part = As.Part.PLACE)
            int point,

            @Column("How far the answer holds it") @NotNull Verdict verdict,

            @Column("true if it is the sheet that came a second time; otherwise empty or false")
            boolean repeat)
            implements OnSheet {}

    @TableForm(
            name = "remarks",
            meaning = "What raters noted on answers, or on lines of them.",
            key = {"rater", "answer", "remark", "repeat"})
    record RemarkRow(
            @Column(value = "The rater", in = "raters.rater") @NotNull
            String rater,

            @Column(value = "The answer", in = "answers.answer") @NotNull
            String answer,

            @Column("Which of the rater's remarks on the answer, from 1") @Min(1)
            int remark,

            @Column("Which way it points") RemarkContent.@NotNull Stance stance,

            @Column("The kind of remark, as traits names it; empty for none") @As(RemarkContent.class)
            String trait,

            @Column("The remark in words; empty only if there is a trait") @As(RemarkContent.class)
            String words,

            @Column(
                    "In what the lines are counted: the answer's text, the starting code, the changed code, or a file whole; empty for a remark on the whole answer")
            RemarkContent.@Nullable Part part,

            @Column("The file of the lines; empty in the answer's text") @As(RemarkContent.Lines.class) @Nullable
            String path,

            @Column("First line, from 1") @Min(1) @Nullable Integer fromLine,

            @Column("Last line") @Min(1) @Nullable Integer toLine,

            @Column("The lines as the rater read them, shortened") @As(RemarkContent.Lines.class)
            String quote,

            @Column("true if it is the sheet that came a second time; otherwise empty or false")
            boolean repeat)
            implements OnSheet {}

    public static final Table<SheetRow> SHEETS = Table.of(SheetRow.class);
    static final Table<PositionRow> POSITIONS = Table.of(PositionRow.class);
    static final Table<GradeRow> GRADES = Table.of(GradeRow.class);
    static final Table<ReasonRow> REASONS = Table.of(ReasonRow.class);
    static final Table<JudgementRow> JUDGEMENTS = Table.of(JudgementRow.class);
    static final Table<CoverageRow> COVERAGE = Table.of(CoverageRow.class);
    static final Table<RemarkRow> REMARKS = Table.of(RemarkRow.class);

    /** What raters say of answers. */
    static final List<Table<?>> SAID = List.of(GRADES, REASONS, JUDGEMENTS, COVERAGE, REMARKS);

    /** In the order in which they are written; a study that is being prepared has no rows of them. */
    public static final List<Table<?>> TABLES =
            List.of(SHEETS, POSITIONS, GRADES, REASONS, JUDGEMENTS, COVERAGE, REMARKS);

    private final KeyedSheet sheet;
    private final WrittenFiles out;

    private SheetRows(KeyedSheet sheet, WrittenFiles out) {
        this.sheet = sheet;
        this.out = out;
    }

    public static void write(KeyedSheet sheet, WrittenFiles out) {
        new SheetRows(sheet, out).write();
    }

    private void write() {
        Grading.Withdrawn withdrawn = sheet.withdrawn();
        out.add(
                SHEETS,
                new SheetRow(
                        sheet.rater(),
                        sheet.prompt(),
                        sheet.place() + 1,
                        sheet.sentAt(),
                        sheet.repeat(),
                        sheet.rubricVersion(),
                        withdrawn == null ? null : withdrawn.at(),
                        withdrawn == null ? "" : withdrawn.reason()));
        int position = 1;
        for (KeyedSheet.KeyedAnswer answer : sheet.answers()) {
            out.add(POSITIONS, new PositionRow(sheet.rater(), answer.answer(), position++, sheet.repeat()));
            new TreeMap<>(answer.marks()).forEach((criterion, mark) -> grade(answer.answer(), criterion, mark));
            if (!answer.reason().isEmpty()) {
                out.add(REASONS, new ReasonRow(sheet.rater(), answer.answer(), answer.reason(), sheet.repeat()));
            }
            judgement(answer.answer(), answer.judgement());
            answer.coverage()
                    .forEach((point, verdict) -> out.add(
                            COVERAGE,
                            new CoverageRow(sheet.rater(), answer.answer(), point + 1, verdict, sheet.repeat())));
            int number = 1;
            for (RemarkContent remark : answer.remarks()) {
                remark(answer.answer(), number++, remark);
            }
        }
    }

    private void grade(String answer, String criterion, Mark mark) {
        out.add(
                GRADES,
                new GradeRow(
                        sheet.rater(),
                        answer,
                        criterion,
                        mark.level(),
                        mark.notApplicable(),
                        sheet.repeat(),
                        mark.confidence()));
    }

    private void judgement(String answer, KeyedSheet.KeyedJudgement judgement) {
        if (judgement.isMade()) {
            out.add(
                    JUDGEMENTS,
                    new JudgementRow(
                            sheet.rater(),
                            answer,
                            judgement.works(),
                            judgement.worksWhy().isEmpty() ? null : judgement.worksWhy(),
                            judgement.preference(),
                            judgement.guess(),
                            judgement.noIdea(),
                            judgement.activeMs() == 0 ? null : judgement.activeMs(),
                            sheet.repeat()));
        }
    }

    private void remark(String answer, int number, RemarkContent remark) {
        RemarkContent.Lines lines = remark.lines();
        out.add(
                REMARKS,
                new RemarkRow(
                        sheet.rater(),
                        answer,
                        number,
                        remark.stance(),
                        remark.trait(),
                        remark.words(),
                        lines == null ? null : lines.part(),
                        lines == null ? null : lines.path(),
                        lines == null ? null : lines.from(),
                        lines == null ? null : lines.to(),
                        lines == null ? "" : lines.quote(),
                        sheet.repeat()));
    }
}
