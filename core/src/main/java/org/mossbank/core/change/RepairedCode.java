package org.mossbank.core.change;

import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import org.mossbank.core.estimate.Require;

/**
 * Files of an answer's code as a person changed them so that they can be tried. Whoever changes them may have been shown other words
 * in a line than stand there: lines that they left alone stay as they were.
 *
 * @param files text by path, of those that were changed alone
 */
public record RepairedCode(SortedMap<String, String> files) {
    public RepairedCode {
        files = Collections.unmodifiableSortedMap(new TreeMap<>(files));
    }

    /**
     * Lays changes over files.
     *
     * @param files   as they are, text by path
     * @param shown   how a text was shown; as many lines as it has
     * @param changed text by path, of what was shown
     * @throws IllegalArgumentException if a path is none of the files
     */
    public static RepairedCode of(Map<String, String> files, UnaryOperator<String> shown, Map<String, String> changed) {
        ComparisonBudget budget = ComparisonBudget.whole();
        SortedMap<String, String> repaired = new TreeMap<>();
        changed.forEach((path, text) -> {
            Require.that(files.containsKey(path), "path", "is one of the files", path);
            String before = Require.known(files, path);
            String after = laidOver(before, shown.apply(before), text, budget);
            if (!before.equals(after)) {
                repaired.put(path, after);
            }
        });
        return new RepairedCode(repaired);
    }

    private static String laidOver(String before, String shown, String changed, ComparisonBudget budget) {
        List<String> lines = before.lines().toList();
        List<String> seen = shown.lines().toList();
        // Shown otherwise than line by line, nothing can be told apart; what came is taken as it is.
        List<String> after = seen.size() == lines.size()
                ? LineDiff.laidOver(lines, seen, changed.lines().toList(), budget)
                : changed.lines().toList();
        String end = changed.endsWith("\n") ? "\n" : "";
        return after.isEmpty() ? "" : String.join("\n", after) + end;
    }

    /** What was changed, file by file. */
    public List<FileChange> changes(Map<String, String> before) {
        ComparisonBudget budget = ComparisonBudget.whole();
        return files.entrySet().stream()
                .flatMap(f -> LineDiff.between(
                        f.getKey(),
                        Optional.ofNullable(before.get(f.getKey()))
                                .orElse("")
                                .lines()
                                .toList(),
                        f.getValue().lines().toList(),
                        budget)
                        .stream())
                .toList();
    }

    /** How many lines changes are: one that was replaced counts once, as do one that was added and one that was removed. */
    public static int lines(List<FileChange> changes) {
        return changes.stream()
                .flatMap(c -> c.hunks().stream())
                .mapToInt(RepairedCode::lines)
                .sum();
    }

    private static int lines(Hunk hunk) {
        int lines = 0;
        int removed = 0;
        int added = 0;
        for (ChangedLine line : hunk.lines()) {
            switch (line.kind()) {
                case REMOVED -> removed++;
                case ADDED -> added++;
                case KEPT -> {
                    lines += Math.max(removed, added);
                    removed = 0;
                    added = 0;
                }
            }
        }
        return lines + Math.max(removed, added);
    }
}
