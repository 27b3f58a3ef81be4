package org.mossbank.server.memo.rows;

import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.files.Column;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.TableForm;
import org.mossbank.server.files.Tables;
import org.mossbank.server.files.WrittenFiles;
import org.mossbank.server.memo.document.EntryView;
import org.mossbank.server.memo.document.MemoDocument;
import org.mossbank.server.memo.document.MemoHead;
import org.mossbank.server.memo.document.MemoSection;
import org.mossbank.server.memo.document.NamesShown;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** The versions of a memo, as rows of the open format. */
public final class MemoRows {
    private static final int MOST_VERSIONS = 1000;
    private static final int MOST_BYTES = 64 << 20;
    private static final JsonMapper MAPPER = JsonMapper.builder()
            .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
            .build();

    @TableForm(name = "memos", meaning = "The memo, version by version.", key = "memo")
    record MemoRow(
            @Column("Which version, from 1") @Min(1) @Max(MOST_VERSIONS)
            int memo,

            @Column("How those who graded are called") @NotNull
            NamesShown names,

            @Column("What it says otherwise than the version before, and why; empty in the first")
            @Size(max = MemoHead.LONGEST_CHANGE)
            String change,

            @Column("When it was begun, ISO 8601 with zone") @NotNull
            Instant begunAt,

            @Column("Name of who began it") @NotNull @Size(min = 1, max = 200)
            String begunBy,

            @Column("When it was signed; empty while it is being written, as are the rest") @Nullable
            Instant signedAt,

            @Column("Name of who signed it") @Size(min = 1, max = 200) @Nullable
            String signedBy,

            @Column("Path in the archive of what was signed, JSON") @Nullable
            String document,

            @Column("Path in the archive of its appendix, JSON") @Nullable
            String appendix,

            @Column("Path in the archive of the archive that its figures rest on, a zip") @Nullable
            String archive) {}

    @TableForm(
            name = "memo-words",
            meaning = "What the lead writes in a memo between its figures.",
            key = {"memo", "part"})
    record WordsRow(
            @Column("The version") @Min(1) @Max(MOST_VERSIONS)
            int memo,

            @Column("The part of it") @NotNull MemoSection part,

            @Column("Markdown") @NotNull @Size(min = 1, max = MemoSection.LONGEST_WORDS)
            String text) {}

    @TableForm(
            name = "memo-dissents",
            meaning = "Where raters see it otherwise than a memo, in their own words.",
            key = {"memo", "rater"})
    record DissentRow(
            @Column("The version") @Min(1) @Max(MOST_VERSIONS)
            int memo,

            @Column(value = "Key of the rater", in = "raters.rater") @NotNull
            String rater,

            @Column("In their words") @NotNull @Size(min = 1, max = EntryView.LONGEST_WORDS)
            String words,

            @Column("When, ISO 8601 with zone") @NotNull Instant saidAt) {}

    @TableForm(name = "memo-entries", meaning = "What was added to a memo after it was signed, oldest first.")
    record EntryRow(
            @Column("The version") @Min(1) @Max(MOST_VERSIONS)
            int memo,

            @Column("What sort of thing it is") @NotNull EntryView.Sort sort,

            @Column("In words; may be empty for a second signature") @Size(max = EntryView.LONGEST_WORDS)
            String words,

            @Column("Who decided; for a decision alone") @Size(max = EntryView.LONGEST_NAME)
            String decidedBy,

            @Column("Name of who added it") @NotNull @Size(min = 1, max = 200)
            String by,

            @Column("When, ISO 8601 with zone") @NotNull Instant at) {}

    private static final Table<MemoRow> MEMOS = Table.of(MemoRow.class);
    private static final Table<WordsRow> WORDS = Table.of(WordsRow.class);
    private static final Table<DissentRow> DISSENTS = Table.of(DissentRow.class);
    private static final Table<EntryRow> ENTRIES = Table.of(EntryRow.class);

    public static final List<Table<?>> TABLES = List.of(MEMOS, WORDS, DISSENTS, ENTRIES);

    private MemoRows() {}

    /** By number; with a fault for each that cannot be so. */
    public static List<KeyedMemo> read(Tables tables) {
        Map<Integer, Line<MemoRow>> heads = new TreeMap<>();
        tables.lines(MEMOS).forEach(l -> heads.put(l.row().memo(), l));
        List<KeyedMemo> memos = new ArrayList<>();
        for (Line<MemoRow> line : heads.values()) {
            boolean last = line.row().memo() == heads.size();
            if (line.row().memo() != memos.size() + 1) {
                tables.faults().add(line.at(), "memo", "versions from 1 without a gap", null);
                return memos;
            }
            if (!isWholeOrOpen(line.row()) || line.row().signedAt() == null && !last) {
                tables.faults()
                        .add(
                                line.at(),
                                "signed_at",
                                "who signed, document, appendix and archive, or, in the last version, none of them",
                                null);
            }
            memos.add(memo(line, tables));
        }
        refuseStrays(tables, heads);
        return memos;
    }

    private static boolean isWholeOrOpen(MemoRow row) {
        boolean signed = row.signedAt() != null;
        return (row.signedBy() != null) == signed
                && (row.document() != null) == signed
                && (row.appendix() != null) == signed
                && (row.archive() != null) == signed;
    }

    private static void refuseStrays(Tables tables, Map<Integer, Line<MemoRow>> heads) {
        tables.lines(WORDS).stream()
                .filter(l -> !heads.containsKey(l.row().memo()))
                .forEach(l -> stray(tables, l));
        tables.lines(DISSENTS).stream()
                .filter(l -> !heads.containsKey(l.row().memo()))
                .forEach(l -> stray(tables, l));
        tables.lines(ENTRIES).stream()
                .filter(l -> !heads.containsKey(l.row().memo())
                        || heads.get(l.row().memo()).row().signedAt() == null)
                .forEach(l -> stray(tables, l));
    }

    private static void stray(Tables tables, Line<?> line) {
        tables.faults()
                .add(line.at(), "memo", "a version that is there, and signed where something is added to it", null);
    }

    private static KeyedMemo memo(Line<MemoRow> line, Tables tables) {
        MemoRow row = line.row();
        Map<MemoSection, String> words = new EnumMap<>(MemoSection.class);
        tables.lines(WORDS).stream()
                .map(Line::row)
                .filter(w -> w.memo() == row.memo())
                .forEach(w -> words.put(w.part(), w.text()));
        Instant at = row.signedAt();
        String by = row.signedBy();
        return new KeyedMemo(
                new MemoHead(
                        row.memo(),
                        row.begunAt(),
                        row.begunBy(),
                        row.change(),
                        at == null || by == null ? null : new MemoHead.MemoSignature(at, by)),
                row.names(),
                words,
                tables.lines(DISSENTS).stream()
                        .map(Line::row)
                        .filter(d -> d.memo() == row.memo())
                        .map(d -> new KeyedMemo.KeyedDissent(d.rater(), d.words(), d.saidAt()))
                        .toList(),
                tables.lines(ENTRIES).stream()
                        .map(Line::row)
                        .filter(e -> e.memo() == row.memo())
                        .map(e -> new EntryView(e.sort(), e.words(), e.decidedBy(), e.by(), e.at()))
                        .toList(),
                frozen(line, tables).orElse(null));
    }

    private static Optional<KeyedMemo.Frozen> frozen(Line<MemoRow> line, Tables tables) {
        Optional<String> document = json(line, "document", MemoDocument.class, tables);
        Optional<String> appendix = json(line, "appendix", MemoDocument.MemoTable.class, tables);
        Optional<byte[]> archive = tables.bytes(line.at(), "archive", MOST_BYTES);
        return document.isPresent() && appendix.isPresent() && archive.isPresent()
                ? Optional.of(new KeyedMemo.Frozen(document.get(), appendix.get(), archive.get()))
                : Optional.empty();
    }

    /** Whatever is kept is what the code itself would write. */
    private static Optional<String> json(Line<MemoRow> line, String column, Class<?> type, Tables tables) {
        return tables.bytes(line.at(), column, MOST_BYTES).flatMap(bytes -> {
            try {
                return Optional.of(MAPPER.writeValueAsString(MAPPER.readValue(bytes, type)));
            } catch (JacksonException e) {
                tables.faults().add(line.at(), column, "JSON as a memo has it", null);
                return Optional.empty();
            }
        });
    }

    public static void write(KeyedMemo memo, WrittenFiles out) {
        MemoHead head = memo.head();
        MemoHead.MemoSignature signed = head.signed();
        KeyedMemo.Frozen frozen = memo.frozen();
        String path = "memos/" + head.number();
        out.add(
                MEMOS,
                new MemoRow(
                        head.number(),
                        memo.names(),
                        head.change(),
                        head.begunAt(),
                        head.begunBy(),
                        signed == null ? null : signed.at(),
                        signed == null ? null : signed.by(),
                        frozen == null ? null : path + ".json",
                        frozen == null ? null : path + "-appendix.json",
                        frozen == null ? null : path + ".zip"));
        if (frozen != null) {
            out.put(path + ".json", frozen.document());
            out.put(path + "-appendix.json", frozen.appendix());
            out.put(path + ".zip", frozen.archive());
        }
        new TreeMap<>(memo.words()).forEach((part, text) -> out.add(WORDS, new WordsRow(head.number(), part, text)));
        memo.dissents()
                .forEach(d -> out.add(DISSENTS, new DissentRow(head.number(), d.rater(), d.words(), d.saidAt())));
        memo.entries()
                .forEach(e -> out.add(
                        ENTRIES, new EntryRow(head.number(), e.sort(), e.words(), e.decidedBy(), e.by(), e.at())));
    }
}
