package org.mossbank.core.change;

import java.util.List;

/**
 * What happens to one file.
 *
 * @param path  where it stands afterwards; for a removed file, where it stood
 * @param from  where it stood; the same as the path unless it was moved
 * @param hunks  in the order of the file
 * @param coarse whether all lines are shown as replaced, because comparing them one by one would take too long
 */
public record FileChange(String path, String from, Sort sort, List<Hunk> hunks, boolean coarse) {
    public FileChange {
        hunks = List.copyOf(hunks);
    }

    /** A change that is told line by line. */
    public FileChange(String path, String from, Sort sort, List<Hunk> hunks) {
        this(path, from, sort, hunks, false);
    }

    /** What a change does to a file. */
    public enum Sort {
        CHANGED,
        ADDED,
        REMOVED,
        MOVED
    }

    public int added() {
        return hunks.stream().mapToInt(h -> h.count(ChangedLine.Kind.ADDED)).sum();
    }

    public int removed() {
        return hunks.stream().mapToInt(h -> h.count(ChangedLine.Kind.REMOVED)).sum();
    }
}
