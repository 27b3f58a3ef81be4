package org.mossbank.core.change;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.mossbank.core.markdown.FencedBlock;

/**
 * The code of an answer: what it changes in the starting code, and what it ends in.
 *
 * @param changes file by file, each with whether it fits
 * @param files   files of the starting code with the changes in them, new files, then other blocks of code, in the order
 *                of the answer
 * @param limits  why something is not shown, in sentences; empty if all is
 */
public record AnswerCode(List<Fitted> changes, List<CodeFile> files, List<String> limits) {
    private static final Set<String> NOT_CODE = Set.of("text", "txt", "console", "output", "log", "plaintext");

    public AnswerCode {
        changes = List.copyOf(changes);
        files = List.copyOf(files);
        limits = List.copyOf(limits);
    }

    /**
     * A change, and where it does not fit the starting code.
     *
     * @param misfit in words; empty if it fits
     */
    public record Fitted(FileChange change, Optional<String> misfit) {}

    /** Where the first change does not fit, in words; for answers that come together, within what they may cost. */
    public static Optional<String> firstMisfit(
            Map<String, String> startingCode, String answer, ComparisonBudget budget) {
        StartingCode start = new StartingCode(startingCode);
        return AnswerChanges.in(start, answer, budget).told().stream()
                .flatMap(c -> AnswerChanges.misfit(start, c).stream())
                .findFirst();
    }

    /**
     * Reads an answer once for all of it.
     *
     * @param startingCode text by path
     * @param answer       Markdown
     */
    public static AnswerCode of(Map<String, String> startingCode, String answer) {
        return of(startingCode, answer, ComparisonBudget.whole());
    }

    static AnswerCode of(Map<String, String> startingCode, String answer, ComparisonBudget budget) {
        StartingCode start = new StartingCode(startingCode);
        AnswerChanges found = AnswerChanges.in(start, answer, budget);
        return ended(start, found, budget, c -> new Fitted(c, AnswerChanges.misfit(start, c)));
    }

    /**
     * An answer's code, changes fitted in where their lines stand.
     *
     * @param told how changes fit where they do not fit exactly, in sentences
     */
    public record Loosely(AnswerCode code, List<String> told) {
        public Loosely {
            told = List.copyOf(told);
        }
    }

    /** The same for a whole repository, where what an answer was shown may stand elsewhere. */
    public static Loosely loosely(Map<String, String> repository, String answer) {
        ComparisonBudget budget = ComparisonBudget.whole();
        StartingCode start = new StartingCode(repository);
        AnswerChanges found = AnswerChanges.in(start, answer, budget);
        HunkFit fit = new HunkFit(start, budget);
        AnswerCode code = ended(start, found, budget, c -> {
            try {
                return fit.of(c);
            } catch (ComparisonBudget.Spent e) {
                return new Fitted(
                        c, Optional.of(c.from() + " could not be searched for where it fits: it is too much"));
            }
        });
        return new Loosely(code, fit.told());
    }

    private static AnswerCode ended(
            StartingCode start, AnswerChanges found, ComparisonBudget budget, Function<FileChange, Fitted> fit) {
        List<Fitted> changes = found.told().stream().map(fit).toList();
        List<CodeFile> files = new ArrayList<>();
        try {
            for (Fitted fitted : changes) {
                if (fitted.misfit().isEmpty()) {
                    files.add(applied(start, fitted.change(), budget));
                }
            }
        } catch (ComparisonBudget.Spent e) {
            found.stop();
        }
        files.addAll(blocks(found.others()));
        return new AnswerCode(changes, files, List.copyOf(found.limits()));
    }

    private static List<CodeFile> blocks(List<FencedBlock> others) {
        List<CodeFile> files = new ArrayList<>();
        for (FencedBlock block : others) {
            if (!NOT_CODE.contains(block.language()) && !block.content().isBlank()) {
                files.add(CodeFile.block(files.size() + 1, block.language(), block.content()));
            }
        }
        return files;
    }

    /** The file with a fitting change in it. */
    private static CodeFile applied(StartingCode start, FileChange change, ComparisonBudget budget) {
        List<String> old = start.has(change.from()) ? start.lines(change.from()) : List.of();
        String before = start.text(change.from());
        // An answer may change one file a thousand times over, and each time the file is written whole.
        budget.spend(old.size());
        if (change.sort() == FileChange.Sort.REMOVED) {
            return new CodeFile(change.path(), CodeFile.Sort.REMOVED, "", before);
        }
        StringBuilder text = new StringBuilder();
        int next = 0;
        for (Hunk hunk : change.hunks()) {
            // A hunk that only adds names the line it comes after.
            int from = Math.min(old.size(), hunk.linesBefore().isEmpty() ? hunk.before() : hunk.before() - 1);
            old.subList(next, Math.max(next, from)).forEach(l -> text.append(l).append('\n'));
            hunk.lines().stream()
                    .filter(l -> l.kind() != ChangedLine.Kind.REMOVED)
                    .forEach(l -> text.append(l.text()).append('\n'));
            next = Math.max(next, from) + hunk.linesBefore().size();
        }
        old.subList(next, old.size()).forEach(l -> text.append(l).append('\n'));
        boolean isNew = change.sort() == FileChange.Sort.ADDED;
        return new CodeFile(
                change.path(), isNew ? CodeFile.Sort.ADDED : CodeFile.Sort.CHANGED, text.toString(), before);
    }

    /**
     * The differences between what two answers end in. Files are compared by path, blocks by their order; what both have
     * alike is left out.
     */
    public static List<FileChange> between(List<CodeFile> first, List<CodeFile> second) {
        return between(first, second, ComparisonBudget.whole());
    }

    /** The same, for as much as a budget reaches; beyond it files are shown as wholly replaced. */
    static List<FileChange> between(List<CodeFile> first, List<CodeFile> second, ComparisonBudget budget) {
        Map<String, String> firstByName = byName(first, second);
        Map<String, String> secondByName = byName(second, first);
        List<FileChange> changes = new ArrayList<>();
        Map<String, String> all = new LinkedHashMap<>(firstByName);
        secondByName.forEach(all::putIfAbsent);
        for (String name : all.keySet()) {
            LineDiff.between(
                            name,
                            firstByName.getOrDefault(name, "").lines().toList(),
                            secondByName.getOrDefault(name, "").lines().toList(),
                            budget)
                    .map(c -> new FileChange(
                            name,
                            name,
                            !firstByName.containsKey(name)
                                    ? FileChange.Sort.ADDED
                                    : secondByName.containsKey(name)
                                            ? FileChange.Sort.CHANGED
                                            : FileChange.Sort.REMOVED,
                            c.hunks(),
                            c.coarse()))
                    .ifPresent(changes::add);
        }
        return LineNatures.told(changes);
    }

    /** Texts by name; blocks by number, whatever their language; a file that only the other changes as it started. */
    private static Map<String, String> byName(List<CodeFile> own, List<CodeFile> other) {
        Map<String, String> texts = new LinkedHashMap<>();
        int number = 0;
        for (CodeFile file : own) {
            if (file.sort() == CodeFile.Sort.BLOCK) {
                number++;
                texts.put("Block " + number, file.text());
            } else if (file.sort() != CodeFile.Sort.REMOVED) {
                texts.put(file.path(), file.text());
            }
        }
        Map<String, CodeFile> ownByPath = new HashMap<>();
        own.forEach(f -> ownByPath.put(f.path(), f));
        other.stream()
                .filter(f -> f.sort() == CodeFile.Sort.CHANGED || f.sort() == CodeFile.Sort.REMOVED)
                .filter(f -> !ownByPath.containsKey(f.path()))
                .forEach(f -> texts.put(f.path(), f.before()));
        return texts;
    }
}
