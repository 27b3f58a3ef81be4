package org.mossbank.core.change;

import com.github.difflib.DiffUtils;
import com.github.difflib.algorithm.myers.MyersDiffWithLinearSpace;
import com.github.difflib.patch.AbstractDelta;
import com.github.difflib.patch.ChangeDelta;
import com.github.difflib.patch.Chunk;
import com.github.difflib.patch.Patch;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The difference between two states of a file, line by line.
 *
 * <p>Cost: memory linear in the lines; time the lines times the differences between them, within a budget.
 */
final class LineDiff {
    /** Lines kept around a change. */
    private static final int CONTEXT = 3;

    private final List<String> old;
    private final List<AbstractDelta<Integer>> deltas;
    private final List<String> fresh;
    private final boolean coarse;

    private LineDiff(List<String> old, List<String> fresh, ComparisonBudget budget) {
        this.old = old;
        this.fresh = fresh;
        // Lines as numbers: two long lines that are almost alike cost no more than any two.
        Map<String, Integer> numbers = new HashMap<>();
        List<Integer> before = numbered(old, numbers);
        List<Integer> after = numbered(fresh, numbers);
        List<AbstractDelta<Integer>> found = List.of();
        boolean stopped = false;
        try {
            found = DiffUtils.diff(before, after, new MyersDiffWithLinearSpace<>((Integer a, Integer b) -> {
                        budget.spend(1);
                        return a.equals(b);
                    }))
                    .getDeltas();
        } catch (ComparisonBudget.Spent e) {
            Patch<Integer> whole = new Patch<>();
            whole.addDelta(new ChangeDelta<>(new Chunk<>(0, before), new Chunk<>(0, after)));
            found = whole.getDeltas();
            stopped = true;
        }
        this.deltas = found;
        this.coarse = stopped;
    }

    private static List<Integer> numbered(List<String> lines, Map<String, Integer> numbers) {
        List<Integer> numbered = new ArrayList<>(lines.size());
        for (String line : lines) {
            numbered.add(numbers.computeIfAbsent(line, l -> numbers.size()));
        }
        return numbered;
    }

    /**
     * The difference; empty if there is none. Where the budget does not reach, all lines are shown as replaced.
     *
     * @param path of the file on both sides
     */
    static Optional<FileChange> between(String path, List<String> before, List<String> after, ComparisonBudget budget) {
        LineDiff diff = new LineDiff(before, after, budget);
        List<Hunk> hunks = diff.hunks();
        return hunks.isEmpty()
                ? Optional.empty()
                : Optional.of(new FileChange(path, path, FileChange.Sort.CHANGED, hunks, diff.coarse));
    }

    /**
     * Lines with a change laid over them that was made on how they were shown: what was not changed stays as it is.
     *
     * @param lines   as they are
     * @param shown   the same number of lines
     * @param changed what came of those that were shown
     */
    static List<String> laidOver(
            List<String> lines, List<String> shown, List<String> changed, ComparisonBudget budget) {
        List<String> result = new ArrayList<>();
        int at = 0;
        for (AbstractDelta<Integer> delta : new LineDiff(shown, changed, budget).deltas) {
            result.addAll(lines.subList(at, delta.getSource().getPosition()));
            int into = delta.getTarget().getPosition();
            result.addAll(changed.subList(into, into + delta.getTarget().size()));
            at = end(delta);
        }
        result.addAll(lines.subList(at, lines.size()));
        return result;
    }

    private List<Hunk> hunks() {
        List<Hunk> hunks = new ArrayList<>();
        int next = 0;
        while (next < deltas.size()) {
            int last = next;
            while (last + 1 < deltas.size()
                    && deltas.get(last + 1).getSource().getPosition() - end(deltas.get(last)) <= 2 * CONTEXT) {
                last++;
            }
            hunks.add(hunk(deltas.subList(next, last + 1)));
            next = last + 1;
        }
        return hunks;
    }

    private static int end(AbstractDelta<?> delta) {
        return delta.getSource().getPosition() + delta.getSource().size();
    }

    private Hunk hunk(List<AbstractDelta<Integer>> within) {
        AbstractDelta<Integer> first = within.get(0);
        int start = Math.max(0, first.getSource().getPosition() - CONTEXT);
        int shift = first.getTarget().getPosition() - first.getSource().getPosition();
        List<ChangedLine> lines = new ArrayList<>();
        int at = start;
        for (AbstractDelta<Integer> delta : within) {
            add(lines, ChangedLine.Kind.KEPT, old, at, delta.getSource().getPosition());
            add(lines, ChangedLine.Kind.REMOVED, old, delta.getSource().getPosition(), end(delta));
            int into = delta.getTarget().getPosition();
            add(
                    lines,
                    ChangedLine.Kind.ADDED,
                    fresh,
                    into,
                    into + delta.getTarget().size());
            at = end(delta);
        }
        add(lines, ChangedLine.Kind.KEPT, old, at, Math.min(old.size(), at + CONTEXT));
        return new Hunk(start + 1, start + shift + 1, lines);
    }

    private static void add(List<ChangedLine> lines, ChangedLine.Kind kind, List<String> of, int from, int to) {
        of.subList(from, to).forEach(l -> lines.add(new ChangedLine(kind, l)));
    }
}
