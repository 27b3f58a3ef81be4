package org.mossbank.server.rubric;

import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.files.As;
import org.mossbank.server.files.Column;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.TableForm;
import org.mossbank.server.files.TableRow;
import org.mossbank.server.files.Tables;
import org.mossbank.server.files.WrittenFiles;

/** The rubric that counts as rows of the open format; {@link RubricHistory} holds its other versions. */
public final class RubricRows {
    /** Keys of kinds in one cell, with what stands between them. */
    private static final int LONGEST_KINDS = CriterionContent.MOST_KINDS * (80 + 2);

    @TableForm(
            name = "criteria",
            meaning = "What answers are graded on, in the order of the grade table.",
            key = "criterion")
    record CriterionRow(
            @Column(value = "Key of the criterion", key = true)
            String criterion,

            @Column("Name as shown") @As(CriterionContent.class) @NotNull
            String name,

            @Column("What the rater asks of the answer") @As(CriterionContent.class) @NotNull
            String question,

            @Column("Share in the overall score; weights need not sum to 1") @As(CriterionContent.class)
            double weight,

            @Column("Levels run from 0 to this") @As(ScoreExamples.WeighedCriterion.class)
            int highestLevel,

            @Column("Least agreement on it, where it is not that of the decision rule")
            @As(CriterionContent.class)
            @Nullable
            Double floor,

            @Column("Keys of the kinds that it is for, with ; between them; empty for all") @Size(max = LONGEST_KINDS)
            List<String> kinds) {}

    @TableForm(
            name = "levels",
            meaning = "Names of levels; a level without a row is called by its number.",
            key = {"criterion", "level"})
    record LevelRow(
            @Column(value = "The criterion", in = "criteria.criterion") @NotNull
            String criterion,

            @Column("The level") @Min(0) @Max(CriterionContent.HIGHEST_LEVEL)
            int level,

            @Column("Its name") @As(CriterionContent.LevelContent.class) @NotNull
            String name) {}

    @TableForm(
            name = "anchors",
            meaning = "What a level looks like in answers to one kind of prompt.",
            key = {"criterion", "kind", "level"})
    record AnchorRow(
            @Column(value = "The criterion", in = "criteria.criterion") @NotNull
            String criterion,

            @Column(value = "The kind of prompt", in = "kinds.kind") @NotNull
            String kind,

            @Column("The level") @Min(0) @Max(CriterionContent.HIGHEST_LEVEL)
            int level,

            @Column("The anchor, one or two sentences") @As(CriterionContent.AnchorContent.class) @NotNull
            String text) {}

    @TableForm(
            name = "traits",
            meaning = "Kinds of remark to offer with a criterion, in order.",
            key = {"criterion", "text"})
    record TraitRow(
            @Column(value = "The criterion", in = "criteria.criterion") @NotNull
            String criterion,

            @Column("The trait") @As(value = CriterionContent.class, property = "traits", part = As.Part.ITEM) @NotNull
            String text) {}

    public static final Table<CriterionRow> CRITERIA = Table.of(CriterionRow.class);
    private static final Table<LevelRow> LEVELS = Table.of(LevelRow.class);
    private static final Table<AnchorRow> ANCHORS = Table.of(AnchorRow.class);
    private static final Table<TraitRow> TRAITS = Table.of(TraitRow.class);

    /** In the order in which they are written. */
    public static final List<Table<?>> TABLES = List.of(CRITERIA, LEVELS, ANCHORS, TRAITS);

    private final Tables tables;
    private final Set<String> kinds;
    private final Map<String, List<Line<LevelRow>>> levels;
    private final Map<String, List<Line<AnchorRow>>> anchors;
    private final Map<String, List<Line<TraitRow>>> traits;

    private RubricRows(Tables tables, Set<String> kinds) {
        this.tables = tables;
        this.kinds = kinds;
        this.levels = tables.by(LEVELS, LevelRow::criterion);
        this.anchors = tables.by(ANCHORS, AnchorRow::criterion);
        this.traits = tables.by(TRAITS, TraitRow::criterion);
    }

    /** @param kinds keys of the study's kinds */
    public static List<KeyedCriterion> read(Tables tables, Set<String> kinds) {
        RubricRows rows = new RubricRows(tables, kinds);
        return tables.lines(CRITERIA).stream()
                .map(l -> rows.criterion(l.row(), l.at()))
                .toList();
    }

    private KeyedCriterion criterion(CriterionRow row, TableRow at) {
        if (!kinds.containsAll(row.kinds())) {
            tables.faults().add(at, "kinds", "keys of kinds in " + tables.path("kinds"), at.text("kinds"));
        }
        return new KeyedCriterion(
                row.criterion(),
                row.name(),
                row.question(),
                row.weight(),
                row.floor(),
                levels(row),
                row.kinds(),
                traits.getOrDefault(row.criterion(), List.of()).stream()
                        .map(l -> l.row().text())
                        .toList());
    }

    private List<KeyedCriterion.KeyedLevel> levels(CriterionRow row) {
        Map<Integer, String> names = new TreeMap<>();
        for (Line<LevelRow> line : levels.getOrDefault(row.criterion(), List.of())) {
            checkLevel(tables, line.at(), line.row().level(), row.highestLevel());
            names.put(line.row().level(), line.row().name());
        }
        Map<Integer, TreeMap<String, String>> texts = new TreeMap<>();
        for (Line<AnchorRow> line : anchors.getOrDefault(row.criterion(), List.of())) {
            checkLevel(tables, line.at(), line.row().level(), row.highestLevel());
            texts.computeIfAbsent(line.row().level(), l -> new TreeMap<>())
                    .put(line.row().kind(), line.row().text());
        }
        List<KeyedCriterion.KeyedLevel> all = new ArrayList<>();
        for (int level = 0; level <= row.highestLevel(); level++) {
            all.add(new KeyedCriterion.KeyedLevel(
                    names.getOrDefault(level, ""), texts.getOrDefault(level, new TreeMap<>())));
        }
        return all;
    }

    /** Adds a fault if a row names a level that its criterion does not have. */
    public static void checkLevel(Tables tables, TableRow at, @Nullable Integer level, int highest) {
        if (level != null && level > highest) {
            tables.faults().add(at, "level", "a level from 0 to " + highest, String.valueOf(level));
        }
    }

    public static void write(KeyedCriterion criterion, WrittenFiles out) {
        String key = criterion.key();
        out.add(
                CRITERIA,
                new CriterionRow(
                        key,
                        criterion.name(),
                        criterion.question(),
                        criterion.weight(),
                        criterion.highestLevel(),
                        criterion.floor(),
                        criterion.kinds()));
        Set<String> anchored = new HashSet<>();
        for (int level = 0; level <= criterion.highestLevel(); level++) {
            KeyedCriterion.KeyedLevel one = criterion.levels().get(level);
            if (!one.name().isEmpty()) {
                out.add(LEVELS, new LevelRow(key, level, one.name()));
            }
            anchored.addAll(one.anchors().keySet());
        }
        anchored.stream().sorted().forEach(kind -> writeAnchors(criterion, kind, out));
        criterion.traits().forEach(t -> out.add(TRAITS, new TraitRow(key, t)));
    }

    private static void writeAnchors(KeyedCriterion criterion, String kind, WrittenFiles out) {
        for (int level = 0; level <= criterion.highestLevel(); level++) {
            String text = criterion.levels().get(level).anchors().get(kind);
            if (text != null) {
                out.add(ANCHORS, new AnchorRow(criterion.key(), kind, level, text));
            }
        }
    }
}
