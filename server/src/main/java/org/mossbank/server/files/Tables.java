package org.mossbank.server.files;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.ToIntFunction;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;

/** Tables as far as they are read, the files that stand beside them, and the faults found so far. */
public final class Tables {
    private static final int MEGABYTES = 20;
    private static final int LONGEST_TEXT_BYTES = 4 << MEGABYTES;

    private final Map<String, byte[]> files;
    private final Map<String, String> paths;
    private final Faults faults;
    private final Map<Table<?>, List<? extends Line<?>>> tables = new LinkedHashMap<>();

    /**
     * @param files content by path
     * @param paths where each resource is
     */
    public Tables(Map<String, byte[]> files, Map<String, String> paths, Faults faults) {
        this.files = files;
        this.paths = paths;
        this.faults = faults;
    }

    public Faults faults() {
        return faults;
    }

    /** Reads a table if there is one; empty, with faults, if it is not text. */
    public <R extends Record> Optional<List<Line<R>>> read(Table<R> table) {
        String path = paths.get(table.name());
        if (path == null) {
            return Optional.empty();
        }
        Optional<List<Line<R>>> lines = textAt(path).map(text -> table.read(path, text, faults));
        tables.put(table, lines.orElse(List.of()));
        return lines;
    }

    /** Checks that keys of other tables are there. */
    public void checkReferences() {
        Map<String, List<TableRow>> rows = new LinkedHashMap<>();
        tables.forEach((table, lines) ->
                rows.put(table.name(), lines.stream().<TableRow>map(Line::at).toList()));
        tables.keySet()
                .forEach(table ->
                        table.schema().checkReferences(Require.known(rows, table.name()), rows, paths, faults));
    }

    public boolean has(Table<?> table) {
        return tables.containsKey(table);
    }

    /** The rows of a table in their order; none if it is not there. */
    @SuppressWarnings("unchecked") // put by read alone, with lines of the same row
    public <R extends Record> List<Line<R>> lines(Table<R> table) {
        return (List<Line<R>>) tables.getOrDefault(table, List.of());
    }

    /** Rows in their order, by what they are about. */
    public <R extends Record, K> Map<K, List<Line<R>>> by(Table<R> table, Function<R, K> about) {
        Map<K, List<Line<R>>> by = new LinkedHashMap<>();
        lines(table)
                .forEach(l -> by.computeIfAbsent(about.apply(l.row()), k -> new ArrayList<>())
                        .add(l));
        return by;
    }

    /** Rows of one thing in the order of their places, with a fault where one is missing. */
    public <R extends Record> List<R> inPlaces(@Nullable List<Line<R>> lines, ToIntFunction<R> place) {
        List<Line<R>> sorted = (lines == null ? List.<Line<R>>of() : lines)
                .stream()
                        .sorted(Comparator.comparingInt(l -> place.applyAsInt(l.row())))
                        .toList();
        for (int i = 0; i < sorted.size(); i++) {
            int found = place.applyAsInt(sorted.get(i).row());
            if (found != i + 1) {
                faults.add(sorted.get(i).at(), "place", "places from 1 without a gap", String.valueOf(found));
                break;
            }
        }
        return sorted.stream().map(Line::row).toList();
    }

    /** Where a resource is, for faults that are about all of it. */
    public String path(String resource) {
        return paths.getOrDefault(resource, resource);
    }

    public String path(Table<?> table) {
        return path(table.name());
    }

    /** The text of a resource that is no table; empty if there is none. */
    public Optional<String> textOf(String resource) {
        return Optional.ofNullable(paths.get(resource)).flatMap(this::textAt);
    }

    private Optional<String> textAt(String path) {
        return TextFile.read(path, Require.known(files, path), faults);
    }

    /** The text of the file that a row's column names; empty, with a fault, if it cannot be had. */
    public Optional<String> text(TableRow row, String column) {
        return bytes(row, column, LONGEST_TEXT_BYTES).flatMap(b -> textAt(row.text(column)));
    }

    /**
     * The file that a row's column names; empty, with a fault, if it cannot be had.
     *
     * @param most bytes that it may have
     */
    public Optional<byte[]> bytes(TableRow row, String column, int most) {
        String path = row.textOrNull(column);
        if (path == null) {
            return Optional.empty();
        }
        byte[] bytes = files.get(path);
        if (bytes == null) {
            faults.add(row, column, "a file in the archive", path);
            return Optional.empty();
        }
        if (bytes.length > most) {
            faults.add(row, column, "a file of at most " + (most >> MEGABYTES) + " MB", path);
            return Optional.empty();
        }
        return Optional.of(bytes);
    }
}
