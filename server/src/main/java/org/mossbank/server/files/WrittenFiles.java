package org.mossbank.server.files;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/** Tables and texts that are to be written. */
public final class WrittenFiles {
    private final Map<Table<?>, List<List<?>>> rows = new LinkedHashMap<>();
    private final Map<String, byte[]> files = new TreeMap<>();

    /** @param tables all that are written, also those that stay empty */
    public WrittenFiles(List<Table<?>> tables) {
        tables.forEach(t -> rows.put(t, new ArrayList<>()));
    }

    /** @throws IllegalArgumentException if the table is none of those that are written */
    public <R extends Record> void add(Table<R> table, R row) {
        List<List<?>> before = rows.get(table);
        if (before == null) {
            throw new IllegalArgumentException("table is one that is written: " + table.name());
        }
        before.add(table.cells(row));
    }

    public void put(String path, String text) {
        files.put(path, text.getBytes(StandardCharsets.UTF_8));
    }

    public void put(String path, byte[] content) {
        files.put(path, content.clone());
    }

    /** All files by path; a table's is called by its name. */
    public Map<String, byte[]> all() {
        rows.forEach((table, cells) ->
                put(table.name() + ".csv", TableText.of(table.schema().columnNames(), cells)));
        return files;
    }
}
