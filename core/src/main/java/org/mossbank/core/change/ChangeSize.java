package org.mossbank.core.change;

import java.util.List;

/** How much an answer changes: files, and lines on either side. */
public record ChangeSize(int files, int linesAdded, int linesRemoved) {
    public static ChangeSize of(List<FileChange> changes) {
        return new ChangeSize(
                (int) changes.stream().map(FileChange::path).distinct().count(),
                changes.stream().mapToInt(FileChange::added).sum(),
                changes.stream().mapToInt(FileChange::removed).sum());
    }
}
