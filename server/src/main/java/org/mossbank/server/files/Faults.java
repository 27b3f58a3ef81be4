package org.mossbank.server.files;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Gathers faults while an archive is read. */
public final class Faults {
    private final List<Fault> faults = new ArrayList<>();

    public void add(Fault fault) {
        faults.add(fault);
    }

    public void add(TableRow row, @Nullable String field, String expected, @Nullable String found) {
        faults.add(new Fault(row.file(), row.line(), field, expected, found));
    }

    public boolean isEmpty() {
        return faults.isEmpty();
    }

    public List<Fault> list() {
        return List.copyOf(faults);
    }
}
