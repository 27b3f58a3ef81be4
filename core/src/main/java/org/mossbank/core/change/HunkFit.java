package org.mossbank.core.change;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Finds where a change fits a file whose lines stand elsewhere than it says, or of which the lines around a change read otherwise.
 * First where it says, then ever further from there, with all lines that it names; then with one line less of what is kept at
 * either end, then with two. What is taken away must always read as it says.
 */
final class HunkFit {
    /** Lines of what is kept that may be passed over at either end. */
    private static final int MOST_FUZZ = 2;

    private final StartingCode start;
    private final ComparisonBudget budget;
    private final List<String> told = new ArrayList<>();

    HunkFit(StartingCode start, ComparisonBudget budget) {
        this.start = start;
        this.budget = budget;
    }

    /** How changes fit where they do not fit exactly, in sentences. */
    List<String> told() {
        return List.copyOf(told);
    }

    /** The change as it fits, or as it is with why it does not. */
    AnswerCode.Fitted of(FileChange change) {
        Optional<String> misfit = AnswerChanges.misfit(start, change);
        if (misfit.isEmpty() || !start.has(change.from()) || change.sort() == FileChange.Sort.ADDED) {
            return new AnswerCode.Fitted(change, misfit);
        }
        List<String> lines = start.lines(change.from());
        List<Hunk> fitted = new ArrayList<>();
        List<String> how = new ArrayList<>();
        int drift = 0;
        int free = 0;
        for (int i = 0; i < change.hunks().size(); i++) {
            Hunk hunk = change.hunks().get(i);
            Optional<Found> found = find(lines, hunk, drift, free);
            if (found.isEmpty()) {
                return new AnswerCode.Fitted(
                        change,
                        Optional.of("%s, part %d of %d (from line %d): its lines are not there"
                                .formatted(change.from(), i + 1, change.hunks().size(), hunk.before())));
            }
            Hunk at = found.get().hunk;
            fitted.add(at);
            drift = found.get().drift;
            free = at.before() - 1 + at.linesBefore().size();
            words(found.get(), i + 1, change).ifPresent(how::add);
        }
        told.addAll(how);
        return new AnswerCode.Fitted(
                new FileChange(change.path(), change.from(), change.sort(), fitted, change.coarse()), Optional.empty());
    }

    /**
     * @param drift how many lines below where it says
     * @param fuzz  lines at either end that were passed over
     */
    private record Found(Hunk hunk, int drift, int fuzz) {}

    private static Optional<String> words(Found found, int part, FileChange change) {
        if (found.drift == 0 && found.fuzz == 0) {
            return Optional.empty();
        }
        String where = found.drift == 0
                ? "where it says"
                : "%d %s %s"
                        .formatted(
                                Math.abs(found.drift),
                                Math.abs(found.drift) == 1 ? "line" : "lines",
                                found.drift > 0 ? "further down" : "further up");
        String around = found.fuzz == 0
                ? ""
                : ", with %d %s around it passed over".formatted(found.fuzz, found.fuzz == 1 ? "line" : "lines");
        return Optional.of("%s, part %d fits %s%s.".formatted(change.from(), part, where, around));
    }

    private Optional<Found> find(List<String> lines, Hunk hunk, int drift, int free) {
        for (int fuzz = 0; fuzz <= MOST_FUZZ; fuzz++) {
            Optional<Hunk> less = without(hunk, fuzz);
            if (less.isEmpty()) {
                return Optional.empty();
            }
            Hunk tried = less.get();
            List<String> expected = tried.linesBefore();
            int said = tried.before() - 1;
            for (int off = 0; off <= lines.size(); off++) {
                for (int sign = 1; sign >= (off == 0 ? 1 : -1); sign -= 2) {
                    budget.spend(1);
                    int at = said + drift + sign * off;
                    if (at >= free && isAt(lines, at, expected)) {
                        int by = at - said;
                        return Optional.of(new Found(new Hunk(at + 1, tried.after() + by, tried.lines()), by, fuzz));
                    }
                }
            }
        }
        return Optional.empty();
    }

    private boolean isAt(List<String> lines, int at, List<String> expected) {
        if (at < 0 || at + expected.size() > lines.size()) {
            return false;
        }
        for (int i = 0; i < expected.size(); i++) {
            budget.spend(1);
            if (!lines.get(at + i).equals(expected.get(i))) {
                return false;
            }
        }
        return true;
    }

    /** With fewer lines of what is kept at either end; empty if nothing would be left to find it by, or there are not so many. */
    private static Optional<Hunk> without(Hunk hunk, int fuzz) {
        if (fuzz == 0) {
            return hunk.linesBefore().isEmpty() ? Optional.empty() : Optional.of(hunk);
        }
        List<ChangedLine> lines = hunk.lines();
        int from = Math.min(fuzz, kept(lines));
        int to = lines.size() - Math.min(fuzz, kept(reversed(lines)));
        if (from + lines.size() - to == 0 || to <= from) {
            return Optional.empty();
        }
        Hunk less = new Hunk(hunk.before() + from, hunk.after() + from, lines.subList(from, to));
        return less.linesBefore().isEmpty() ? Optional.empty() : Optional.of(less);
    }

    private static int kept(List<ChangedLine> lines) {
        int kept = 0;
        while (kept < lines.size() && lines.get(kept).kind() == ChangedLine.Kind.KEPT) {
            kept++;
        }
        return kept;
    }

    private static List<ChangedLine> reversed(List<ChangedLine> lines) {
        List<ChangedLine> reversed = new ArrayList<>(lines);
        java.util.Collections.reverse(reversed);
        return reversed;
    }
}
