package org.mossbank.core.trial;

import java.util.Map;
import java.util.Set;

/**
 * How a program ended, and what it left.
 *
 * @param end     how it came to its end
 * @param status  that it ended with
 * @param output  its standard output, as far as it was kept
 * @param errors  its other output
 * @param files   text by path, of its work folder when it had ended
 * @param changed paths that were not there before, or read otherwise, or are gone
 */
public record RunEnd(
        End end, int status, String output, String errors, Map<String, String> files, Set<String> changed) {
    /** How it came to its end. */
    public enum End {
        BY_ITSELF,
        TIMED_OUT,
        OUT_OF_MEMORY,
        WROTE_TOO_MUCH,
        BROKE_ITS_BOX
    }

    public RunEnd {
        files = Map.copyOf(files);
        changed = Set.copyOf(changed);
    }
}
