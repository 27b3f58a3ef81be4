package org.mossbank.server.prompt;

import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.files.As;
import org.mossbank.server.files.Column;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.TableForm;
import org.mossbank.server.files.TableRow;
import org.mossbank.server.files.Tables;
import org.mossbank.server.files.WrittenFiles;

/** What belongs to prompts beside their requests, as rows of the open format. */
final class PromptPartRows {
    private static final Pattern PATH = Pattern.compile(StartingFile.PATH);

    @TableForm(
            name = "key-points",
            meaning = "What a right answer to a prompt must contain, or must not. Raters see them.")
    record KeyPointRow(
            @Column(value = "The prompt", in = "prompts.prompt") @NotNull
            String prompt,

            @Column("Which way it points") KeyPoint.@NotNull Stance stance,

            @Column("The point, one sentence") @As(KeyPoint.class) @NotNull
            String text,

            @Column("How much it counts among the others; 1 if empty") @DecimalMin("0") @DecimalMax("1000000") @Nullable
            Double weight,

            @Column("The starting file that it is about") @As(KeyPoint.class) @Nullable
            String file,

            @Column("First line in it, from 1; with the last or not at all") @Min(1) @Nullable
            Integer fromLine,

            @Column("Last line in it") @Min(1) @Nullable Integer toLine) {}

    @TableForm(
            name = "constraints",
            meaning = "What an answer to a prompt must keep to, in order.",
            key = {"prompt", "text"})
    record ConstraintRow(
            @Column(value = "The prompt", in = "prompts.prompt") @NotNull
            String prompt,

            @Column("One thing to keep to")
            @As(value = PromptContent.class, property = "constraints", part = As.Part.ITEM)
            @NotNull
            String text) {}

    @TableForm(
            name = "starting-code",
            meaning = "The files that a prompt is about.",
            key = {"prompt", "path"})
    record StartingCodeRow(
            @Column(value = "The prompt", in = "prompts.prompt") @NotNull
            String prompt,

            @Column("Where the file stands in the code base: relative, with forward slashes, never upwards")
            @As(StartingFile.class)
            @NotNull
            String path,

            @Column("Path in the archive of its text, UTF-8") @NotNull
            String file) {}

    @TableForm(
            name = "follow-ups",
            meaning = "What every candidate is told next if its first answer does not do, in order.",
            key = {"prompt", "place"})
    record FollowUpRow(
            @Column(value = "The prompt", in = "prompts.prompt") @NotNull
            String prompt,

            @Column("Which one, from 1") @As(value = PromptContent.class, property = "followUps", part = As.Part.PLACE)
            int place,

            @Column("What is said, Markdown")
            @As(value = PromptContent.class, property = "followUps", part = As.Part.ITEM)
            @NotNull
            String text) {}

    static final Table<KeyPointRow> KEY_POINTS = Table.of(KeyPointRow.class);
    static final Table<ConstraintRow> CONSTRAINTS = Table.of(ConstraintRow.class);
    static final Table<StartingCodeRow> STARTING_CODE = Table.of(StartingCodeRow.class);
    static final Table<FollowUpRow> FOLLOW_UPS = Table.of(FollowUpRow.class);

    /** In the order in which they are written. */
    static final List<Table<?>> TABLES = List.of(KEY_POINTS, CONSTRAINTS, STARTING_CODE, FOLLOW_UPS);

    private final Tables tables;
    private final Map<String, List<Line<KeyPointRow>>> keyPoints;
    private final Map<String, List<Line<ConstraintRow>>> constraints;
    private final Map<String, List<Line<StartingCodeRow>>> startingCode;
    private final Map<String, List<Line<FollowUpRow>>> followUps;

    PromptPartRows(Tables tables) {
        this.tables = tables;
        this.keyPoints = tables.by(KEY_POINTS, KeyPointRow::prompt);
        this.constraints = tables.by(CONSTRAINTS, ConstraintRow::prompt);
        this.startingCode = tables.by(STARTING_CODE, StartingCodeRow::prompt);
        this.followUps = tables.by(FOLLOW_UPS, FollowUpRow::prompt);
    }

    List<String> constraints(String prompt) {
        return constraints.getOrDefault(prompt, List.of()).stream()
                .map(l -> l.row().text())
                .toList();
    }

    List<String> followUps(String prompt) {
        return tables.inPlaces(followUps.get(prompt), FollowUpRow::place).stream()
                .map(FollowUpRow::text)
                .toList();
    }

    List<KeyPoint> keyPoints(String prompt) {
        return keyPoints.getOrDefault(prompt, List.of()).stream()
                .map(l -> keyPoint(l.row(), l.at()))
                .flatMap(Optional::stream)
                .toList();
    }

    private Optional<KeyPoint> keyPoint(KeyPointRow row, TableRow at) {
        Integer from = row.fromLine();
        Integer to = row.toLine();
        if ((from == null) != (to == null) || (from != null && to != null && (from > to || row.file() == null))) {
            tables.faults().add(at, "to_line", "both lines in order and a file, or none", at.textOrNull("to_line"));
            return Optional.empty();
        }
        double weight = row.weight() == null ? 1 : row.weight();
        if (weight <= 0) {
            tables.faults().add(at, "weight", "a number above 0", at.text("weight"));
            return Optional.empty();
        }
        return Optional.of(new KeyPoint(row.stance(), row.text(), weight, row.file(), from, to));
    }

    List<StartingFile> startingFiles(String prompt) {
        List<StartingFile> files = new ArrayList<>();
        Set<String> seen = new HashSet<>();
        for (Line<StartingCodeRow> line : startingCode.getOrDefault(prompt, List.of())) {
            String path = line.row().path();
            if (!PATH.matcher(path).matches()) {
                tables.faults().add(line.at(), "path", "a relative path such as src/Buoy.java", path);
            } else if (seen.add(path)) {
                files.add(new StartingFile(path, tables.text(line.at(), "file").orElse("")));
            }
        }
        return files;
    }

    static void write(String key, PromptContent content, WrittenFiles out) {
        content.keyPoints()
                .forEach(k -> out.add(
                        KEY_POINTS,
                        new KeyPointRow(
                                key,
                                k.stance(),
                                k.text(),
                                k.weight() == 1 ? null : k.weight(),
                                k.file(),
                                k.fromLine(),
                                k.toLine())));
        content.constraints().forEach(c -> out.add(CONSTRAINTS, new ConstraintRow(key, c)));
        content.startingFiles()
                .forEach(f -> out.add(STARTING_CODE, new StartingCodeRow(key, f.path(), codeFile(key, f.path()))));
        int place = 1;
        for (String followUp : content.followUps()) {
            out.add(FOLLOW_UPS, new FollowUpRow(key, place++, followUp));
        }
        content.startingFiles().forEach(f -> out.put(codeFile(key, f.path()), f.text()));
    }

    private static String codeFile(String key, String path) {
        return "code/" + key + "/" + path;
    }
}
