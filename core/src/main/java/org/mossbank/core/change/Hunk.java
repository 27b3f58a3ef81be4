package org.mossbank.core.change;

import java.util.List;

/**
 * Changed lines with the kept ones around them.
 *
 * @param before the first line's number in the starting code, from 1
 * @param after  the first line's number in the changed file, from 1
 */
public record Hunk(int before, int after, List<ChangedLine> lines) {
    public Hunk {
        lines = List.copyOf(lines);
    }

    int count(ChangedLine.Kind kind) {
        return (int) lines.stream().filter(l -> l.kind() == kind).count();
    }

    /** The lines that stand in the starting code. */
    List<String> linesBefore() {
        return lines.stream()
                .filter(l -> l.kind() != ChangedLine.Kind.ADDED)
                .map(ChangedLine::text)
                .toList();
    }
}
