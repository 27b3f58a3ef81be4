package org.mossbank.server.masking;

import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import org.mossbank.core.masking.GiveAway;
import org.mossbank.server.files.As;
import org.mossbank.server.files.Column;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.TableForm;
import org.mossbank.server.files.TableRow;
import org.mossbank.server.files.Tables;
import org.mossbank.server.files.WrittenFiles;

/** What was masked, and the words that were looked for, as rows of the open format. */
public final class MaskRows {
    @TableForm(
            name = "masking-words",
            meaning =
                    "Words that give candidates away beside their names and versions, such as makers and nicknames; answers are searched for them.",
            key = "word")
    record WordRow(
            @Column("The word")
            @As(value = MaskingService.WriteWords.class, property = "words", part = As.Part.ITEM)
            @NotNull
            String word) {}

    @TableForm(
            name = "masks",
            meaning = "Stretches of answers that give their candidate away, each with what was decided.",
            key = {"answer", "from"})
    record MaskRow(
            @Column(value = "The answer", in = "answers.answer") @NotNull
            String answer,

            @Column(
                    "First character of the stretch, from 0, in UTF-16 code units: in the answer's file, and after it in its follow-ups as raters read them")
            @Min(0)
            int from,

            @Column("After its last character") @Min(1) int to,

            @Column("What stands there") @Size(max = 4000) @NotNull
            String found,

            @Column("What gives the candidate away") GiveAway.@NotNull Sort sort,

            @Column("What raters read instead, if it is masked") @As(MaskingService.Decision.class)
            String replacement,

            @Column(
                    "true if raters read the replacement; otherwise, empty or false, the stretch was looked at and stays")
            boolean accepted,

            @Column("When that was decided") @NotNull Instant decidedAt) {}

    private static final Table<WordRow> WORDS = Table.of(WordRow.class);
    private static final Table<MaskRow> MASKS = Table.of(MaskRow.class);

    /** In the order in which they are written. */
    public static final List<Table<?>> TABLES = List.of(WORDS, MASKS);

    private MaskRows() {}

    /**
     * What raters do not read.
     *
     * @param words words that give candidates away
     * @param masks decisions by the answer's key, in the order of the text
     */
    public record KeyedMasks(List<String> words, SortedMap<String, List<Masking.Decided>> masks) {}

    /** @param texts whole texts by the answer's key */
    public static KeyedMasks read(Tables tables, Map<String, String> texts) {
        SortedMap<String, List<Masking.Decided>> masks = new TreeMap<>();
        for (Line<MaskRow> line : tables.lines(MASKS)) {
            MaskRow row = line.row();
            Masking.Decided decided = new Masking.Decided(
                    row.from(), row.to(), row.found(), row.sort(), row.replacement(), row.accepted(), row.decidedAt());
            List<Masking.Decided> ofAnswer = masks.computeIfAbsent(row.answer(), a -> new ArrayList<>());
            check(line.at(), decided, texts.getOrDefault(row.answer(), ""), ofAnswer, tables);
            ofAnswer.add(decided);
        }
        return new KeyedMasks(
                tables.lines(WORDS).stream().map(l -> l.row().word()).toList(), masks);
    }

    private static void check(
            TableRow at, Masking.Decided decided, String text, List<Masking.Decided> before, Tables tables) {
        Masking.fault(text, decided).ifPresent(expected -> tables.faults().add(at, "found", expected, decided.found()));
        if (before.stream().anyMatch(b -> b.from() < decided.to() && decided.from() < b.to())) {
            tables.faults().add(at, "from", "a stretch that overlaps no other of the answer", at.text("from"));
        }
    }

    public static void write(KeyedMasks masking, WrittenFiles out) {
        masking.words().forEach(w -> out.add(WORDS, new WordRow(w)));
        masking.masks()
                .forEach((answer, decided) -> decided.forEach(d -> out.add(
                        MASKS,
                        new MaskRow(
                                answer,
                                d.from(),
                                d.to(),
                                d.found(),
                                d.sort(),
                                d.replacement(),
                                d.accepted(),
                                d.at()))));
    }
}
