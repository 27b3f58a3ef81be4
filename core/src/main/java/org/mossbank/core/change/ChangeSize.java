package org.mossbank.core.change;

import java.util.List;
import java.util.Map;

/**
 * How much a change does.
 *
 * @param complete whether that is all; comparing stops where it would take too long
 */
public record ChangeSize(int files, int linesAdded, int linesRemoved, boolean complete) {
    /** Of changes that are all told. */
    public static ChangeSize of(List<FileChange> changes) {
        return of(changes, true);
    }

    private static ChangeSize of(List<FileChange> changes, boolean complete) {
        return new ChangeSize(
                (int) changes.stream().map(FileChange::path).distinct().count(),
                changes.stream().mapToInt(FileChange::added).sum(),
                changes.stream().mapToInt(FileChange::removed).sum(),
                complete);
    }

    /**
     * Of an answer.
     *
     * @param startingCode text by path
     * @param answer       Markdown
     */
    public static ChangeSize of(Map<String, String> startingCode, String answer, ComparisonBudget budget) {
        AnswerChanges found = AnswerChanges.in(new StartingCode(startingCode), answer, budget);
        List<FileChange> changes = found.told();
        return of(changes, found.limits().isEmpty() && changes.stream().noneMatch(FileChange::coarse));
    }
}
