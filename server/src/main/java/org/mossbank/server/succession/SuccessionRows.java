package org.mossbank.server.succession;

import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.files.Column;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.TableForm;
import org.mossbank.server.files.Tables;
import org.mossbank.server.files.WrittenFiles;

/** The study before, as tables of the open format. */
public final class SuccessionRows {
    private static final int LONGEST = 500;

    @TableForm(name = "previous-study", meaning = "The study that this one follows; one row at most.")
    record StudyRow(
            @Column("Its title") @NotNull @Size(min = 1, max = LONGEST)
            String title,

            @Column("When its grading ended, ISO 8601 with zone") @NotNull
            Instant endedAt) {}

    @TableForm(
            name = "previous-candidates",
            meaning = "Candidates of the study before, with where they stood.",
            key = "candidate")
    record CandidateRow(
            @Column("Key, the same as in candidates where it takes part again") @NotNull @Size(min = 1, max = LONGEST)
            String candidate,

            @Column("Name then") @NotNull @Size(min = 1, max = LONGEST)
            String name,

            @Column("Version then; may be empty") @Size(max = LONGEST)
            String version,

            @Column("All settings then, in one line; may be empty") @Size(max = 40_000)
            String settings,

            @Column("Score of 100, adjusted; empty if it had none") @DecimalMin("0") @DecimalMax("100") @Nullable
            Double adjusted,

            @Column("Lower limit of its 95 % interval") @DecimalMin("0") @DecimalMax("100") @Nullable
            Double low,

            @Column("Upper limit") @DecimalMin("0") @DecimalMax("100") @Nullable
            Double high) {}

    @TableForm(
            name = "previous-parts",
            meaning = "What the study before was made of.",
            key = {"sort", "key"})
    record PartRow(
            @Column("What it is") Before.@NotNull Sort sort,

            @Column("Its key; of a rater the name to sign in") @NotNull @Size(min = 1, max = LONGEST)
            String key,

            @Column("Its name") @Size(max = LONGEST) String name,

            @Column("Weight of a criterion; empty for the others") @DecimalMin("0") @DecimalMax("1000") @Nullable
            Double weight) {}

    @TableForm(
            name = "previous-grades",
            meaning = "What raters of the study before gave the answers that are graded again.",
            key = {"answer", "criterion"})
    record GradeRow(
            @Column(value = "The answer", in = "answers.answer") @NotNull
            String answer,

            @Column("Key of the criterion; the rubric need not have it") @NotNull @Size(min = 1, max = LONGEST)
            String criterion,

            @Column("Mean level over raters, from 0") @NotNull @DecimalMin("0") @DecimalMax("9")
            Double level,

            @Column("The criterion's highest level then") @Min(1) @Max(9)
            int highestLevel,

            @Column("How many raters") @Min(1) @Max(100_000) int raters) {}

    private static final Table<StudyRow> STUDY = Table.of(StudyRow.class);
    private static final Table<CandidateRow> CANDIDATES = Table.of(CandidateRow.class);
    private static final Table<PartRow> PARTS = Table.of(PartRow.class);
    private static final Table<GradeRow> GRADES = Table.of(GradeRow.class);

    public static final List<Table<?>> TABLES = List.of(STUDY, CANDIDATES, PARTS, GRADES);

    private SuccessionRows() {}

    public static Optional<Before> read(Tables tables) {
        List<Line<StudyRow>> studies = tables.lines(STUDY);
        if (studies.size() > 1) {
            tables.faults().add(studies.get(1).at(), null, "one row at most", null);
        }
        if (studies.isEmpty()) {
            Stream.of(tables.lines(CANDIDATES), tables.lines(PARTS), tables.lines(GRADES))
                    .flatMap(List::stream)
                    .findFirst()
                    .ifPresent(l -> tables.faults().add(l.at(), null, "a row in previous-study too", null));
            return Optional.empty();
        }
        tables.lines(GRADES).stream()
                .filter(l -> l.row().level() > l.row().highestLevel())
                .forEach(l -> tables.faults().add(l.at(), "level", "at most highest_level", null));
        StudyRow study = studies.get(0).row();
        return Optional.of(new Before(
                study.title(),
                study.endedAt(),
                tables.lines(CANDIDATES).stream()
                        .map(Line::row)
                        .map(r -> new Before.Stood(
                                r.candidate(), r.name(), r.version(), r.settings(), r.adjusted(), r.low(), r.high()))
                        .toList(),
                tables.lines(PARTS).stream()
                        .map(Line::row)
                        .map(r -> new Before.Part(r.sort(), r.key(), r.name(), r.weight()))
                        .toList(),
                tables.lines(GRADES).stream()
                        .map(Line::row)
                        .map(r -> new Before.Given(r.answer(), r.criterion(), r.level(), r.highestLevel(), r.raters()))
                        .toList()));
    }

    public static void write(@Nullable Before before, WrittenFiles out) {
        if (before == null) {
            return;
        }
        out.add(STUDY, new StudyRow(before.title(), before.endedAt()));
        before.candidates()
                .forEach(c -> out.add(
                        CANDIDATES,
                        new CandidateRow(
                                c.candidate(), c.name(), c.version(), c.settings(), c.adjusted(), c.low(), c.high())));
        before.parts().forEach(p -> out.add(PARTS, new PartRow(p.sort(), p.key(), p.name(), p.weight())));
        before.grades()
                .forEach(g -> out.add(
                        GRADES, new GradeRow(g.answer(), g.criterion(), g.level(), g.highestLevel(), g.raters())));
    }
}
