package org.mossbank.server.archive;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Gathers faults while an archive is read. */
final class Faults {
    private final List<Fault> faults = new ArrayList<>();

    void add(Fault fault) {
        faults.add(fault);
    }

    void add(TableRow row, @Nullable String field, String expected, @Nullable String found) {
        faults.add(new Fault(row.file(), row.line(), field, expected, found));
    }

    boolean isEmpty() {
        return faults.isEmpty();
    }

    List<Fault> list() {
        return List.copyOf(faults);
    }
}
