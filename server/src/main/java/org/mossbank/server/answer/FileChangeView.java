package org.mossbank.server.answer;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.change.AnswerChanges;
import org.mossbank.core.change.FileChange;
import org.mossbank.core.change.Hunk;

/**
 * What happens to a file of the starting code.
 *
 * @param added   lines
 * @param removed lines
 * @param misfit  why it does not fit the starting code; absent if it does
 */
public record FileChangeView(
        String path,
        String from,
        FileChange.Sort sort,
        int added,
        int removed,
        List<Hunk> hunks,
        @Nullable String misfit) {
    /** @param startingCode text by path */
    public static FileChangeView of(FileChange change, Map<String, String> startingCode) {
        return of(change, AnswerChanges.misfit(startingCode, change).orElse(null));
    }

    /** A difference between two answers, which need not fit anything. */
    public static FileChangeView between(FileChange change) {
        return of(change, (String) null);
    }

    private static FileChangeView of(FileChange change, @Nullable String misfit) {
        return new FileChangeView(
                change.path(), change.from(), change.sort(), change.added(), change.removed(), change.hunks(), misfit);
    }
}
