package org.mossbank.server.files;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** Gathers faults while an archive is read. */
public final class Faults {
    private final List<Fault> faults = new ArrayList<>();
    /** Cells of rows that were refused, and files that were not read to their end: what points there is no fault of its own. */
    private final Map<String, List<Map<String, String>>> refused = new HashMap<>();

    private final Set<String> unread = new HashSet<>();

    public void add(Fault fault) {
        faults.add(fault);
    }

    public void add(TableRow row, @Nullable String field, String expected, @Nullable String found) {
        faults.add(new Fault(row.file(), row.line(), field, expected, found));
    }

    void refuse(String file, Map<String, String> cells) {
        refused.computeIfAbsent(file, f -> new ArrayList<>()).add(cells);
    }

    void notReadToTheEnd(String file) {
        unread.add(file);
    }

    /** Whether all that a file holds is known. */
    boolean isReadToTheEnd(String file) {
        return !unread.contains(file);
    }

    /** What stands in one column of a file's refused rows. */
    Stream<String> refused(String file, String column) {
        return refused.getOrDefault(file, List.of()).stream().flatMap(cells -> Stream.ofNullable(cells.get(column)));
    }

    public boolean isEmpty() {
        return faults.isEmpty();
    }

    public List<Fault> list() {
        return List.copyOf(faults);
    }
}
