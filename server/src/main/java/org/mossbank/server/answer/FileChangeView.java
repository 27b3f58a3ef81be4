package org.mossbank.server.answer;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.change.AnswerCode;
import org.mossbank.core.change.FileChange;
import org.mossbank.core.change.Hunk;

/**
 * What happens to a file of the starting code.
 *
 * @param added   lines
 * @param removed lines
 * @param coarse  whether all lines are shown as replaced, because comparing them one by one would take too long
 * @param misfit  why it does not fit the starting code; absent if it does
 */
public record FileChangeView(
        String path,
        String from,
        FileChange.Sort sort,
        int added,
        int removed,
        List<Hunk> hunks,
        boolean coarse,
        @Nullable String misfit) {
    /** What an answer does to a file. */
    public static FileChangeView of(AnswerCode.Fitted fitted) {
        return of(fitted.change(), fitted.misfit().orElse(null));
    }

    /** A difference between two answers, which need not fit anything. */
    public static FileChangeView between(FileChange change) {
        return of(change, null);
    }

    private static FileChangeView of(FileChange change, @Nullable String misfit) {
        return new FileChangeView(
                change.path(),
                change.from(),
                change.sort(),
                change.added(),
                change.removed(),
                change.hunks(),
                change.coarse(),
                misfit);
    }
}
