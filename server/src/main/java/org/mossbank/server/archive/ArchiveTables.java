package org.mossbank.server.archive;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.files.Faults;
import org.mossbank.server.files.TableRow;

/** An archive's tables as far as they are read, its files, and the faults found so far. */
final class ArchiveTables {
    private static final int LONGEST_TEXT_BYTES = 4 << 20;

    private final ArchiveFiles files;
    private final Map<String, String> paths;
    private final Faults faults;
    private final Map<String, List<TableRow>> tables = new LinkedHashMap<>();

    /** @param paths where each resource is */
    ArchiveTables(ArchiveFiles files, Map<String, String> paths, Faults faults) {
        this.files = files;
        this.paths = paths;
        this.faults = faults;
    }

    Faults faults() {
        return faults;
    }

    void put(String table, List<TableRow> rows) {
        tables.put(table, rows);
    }

    void checkReferences() {
        tables.forEach((name, rows) -> Schemas.table(name).checkReferences(rows, tables, paths, faults));
    }

    boolean has(String table) {
        return tables.containsKey(table);
    }

    List<TableRow> rows(String table) {
        return tables.getOrDefault(table, List.of());
    }

    List<TableRow> rows(String table, String column, String value) {
        return rows(table).stream().filter(r -> r.text(column).equals(value)).toList();
    }

    /** Rows of one thing in the order of their places, with a fault where one is missing. */
    List<TableRow> inPlaces(String table, String column, String value) {
        List<TableRow> rows = rows(table, column, value).stream()
                .sorted(java.util.Comparator.comparingInt(r -> r.integer("place")))
                .toList();
        for (int i = 0; i < rows.size(); i++) {
            if (rows.get(i).integer("place") != i + 1) {
                faults.add(
                        rows.get(i),
                        "place",
                        "places from 1 without a gap",
                        rows.get(i).text("place"));
                break;
            }
        }
        return rows;
    }

    /** Where a resource is, for faults that are about all of it. */
    String path(String resource) {
        return paths.getOrDefault(resource, resource);
    }

    Optional<String> textOf(String resource) {
        return Optional.ofNullable(paths.get(resource)).flatMap(path -> files.text(path, faults));
    }

    /** The text that a row's column points at; empty, with a fault, if it cannot be had. */
    Optional<String> text(TableRow row, String column) {
        String path = row.textOrNull(column);
        if (path == null) {
            return Optional.empty();
        }
        if (!files.has(path)) {
            faults.add(row, column, "a file in the archive", path);
            return Optional.empty();
        }
        if (files.all().get(path).length > LONGEST_TEXT_BYTES) {
            faults.add(row, column, "a file of at most 4 MB", path);
            return Optional.empty();
        }
        return files.text(path, faults);
    }

    /** A word of the files as the constant that it stands for. */
    static <E extends Enum<E>> @Nullable E word(Class<E> type, @Nullable String text) {
        return text == null ? null : Enum.valueOf(type, text.replace('-', '_').toUpperCase(Locale.ROOT));
    }

    /** A constant as it stands in the files. */
    static @Nullable String word(@Nullable Enum<?> constant) {
        return constant == null
                ? null
                : constant.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** Several values in one cell, with ; between them. */
    static List<String> list(String cell) {
        return Arrays.stream(cell.split(";"))
                .map(String::strip)
                .filter(s -> !s.isEmpty())
                .toList();
    }

    static @Nullable String list(List<String> values) {
        return values.isEmpty() ? null : String.join("; ", values);
    }
}
