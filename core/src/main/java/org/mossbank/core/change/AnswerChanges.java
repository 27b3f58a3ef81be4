package org.mossbank.core.change;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.mossbank.core.markdown.FencedBlock;

/**
 * What a Markdown answer changes in the starting code. Two things count: blocks that hold a unified diff, and blocks that print
 * a file of the starting code again: those that hold much of its lines, or declare all its types anew. An excerpt of a file is
 * neither: what it leaves out was not removed.
 *
 * <p>Cost: linear in the answer and the starting code, but for comparing, which has a {@link ComparisonBudget}.
 */
public final class AnswerChanges {
    /** A block prints a file again if it holds at least this share of the file's lines that are not blank. */
    private static final double SHARE_OF_A_REPRINT = 0.5;

    /** A file is named near the beginning of a line, if at all. */
    private static final int LONGEST_SEARCHED = 1_000;

    private static final int LONGEST_ENDING = 8;
    private static final Set<String> DIFF_LANGUAGES = Set.of("diff", "patch", "udiff");

    private final StartingCode start;
    private final ComparisonBudget budget;
    private final Map<String, List<FileChange>> changes = new LinkedHashMap<>();
    private final Set<String> limits = new LinkedHashSet<>();
    private final List<FencedBlock> others = new ArrayList<>();

    private AnswerChanges(StartingCode start, ComparisonBudget budget) {
        this.start = start;
        this.budget = budget;
    }

    /**
     * The changes of an answer; of a file that comes more than once, the last, as that is what the answer ends in.
     *
     * @param startingCode text by path
     * @param answer       Markdown
     */
    public static List<FileChange> of(Map<String, String> startingCode, String answer) {
        return in(new StartingCode(startingCode), answer, ComparisonBudget.whole())
                .told();
    }

    /** Looks through an answer. */
    static AnswerChanges in(StartingCode start, String answer, ComparisonBudget budget) {
        AnswerChanges all = new AnswerChanges(start, budget);
        List<FencedBlock> blocks = FencedBlock.in(answer);
        if (blocks.size() > ComparisonBudget.MOST_BLOCKS) {
            all.limits.add("Only the first %,d of %,d blocks of code were looked at."
                    .formatted(ComparisonBudget.MOST_BLOCKS, blocks.size()));
        }
        try {
            blocks.stream().limit(ComparisonBudget.MOST_BLOCKS).forEach(all::take);
        } catch (ComparisonBudget.Spent e) {
            all.stop();
        }
        return all;
    }

    void stop() {
        limits.add("Comparing with the starting code stopped, as it would have taken too long. The text is whole.");
    }

    List<FileChange> told() {
        List<FileChange> all = changes.values().stream().flatMap(List::stream).toList();
        if (all.size() > ComparisonBudget.MOST_FILES) {
            limits.add("Only the first %,d of %,d changed files are shown."
                    .formatted(ComparisonBudget.MOST_FILES, all.size()));
        }
        return LineNatures.told(all.stream().limit(ComparisonBudget.MOST_FILES).toList());
    }

    /** Why something is not shown, in sentences. */
    Set<String> limits() {
        return limits;
    }

    /** The blocks that are neither a difference nor print a file again. */
    List<FencedBlock> others() {
        return others;
    }

    private void take(FencedBlock block) {
        if (DIFF_LANGUAGES.contains(block.language())) {
            try {
                put(UnifiedDiff.parse(block.content()));
            } catch (MalformedDiff e) {
                // Shown as it is; it changes nothing that could be counted.
                return;
            }
            return;
        }
        Optional<String> printed = start.likest(block.content(), named(block), SHARE_OF_A_REPRINT, budget);
        if (printed.isEmpty()) {
            others.add(block);
            return;
        }
        String path = printed.get();
        List<String> code = block.content().lines().toList();
        budget.spend(start.lines(path).size());
        Optional<FileChange> change = LineDiff.between(path, start.lines(path), start.withHead(path, code), budget);
        changes.remove(path);
        change.ifPresent(c -> put(List.of(c)));
    }

    private void put(List<FileChange> fresh) {
        Map<String, List<FileChange>> byPath = new LinkedHashMap<>();
        fresh.forEach(
                c -> byPath.computeIfAbsent(c.path(), p -> new ArrayList<>()).add(c));
        byPath.keySet().forEach(changes::remove);
        changes.putAll(byPath);
    }

    /** In the fence's info, in the block's first line, or in the line above. */
    private Optional<String> named(FencedBlock block) {
        return Optional.<String>empty()
                .or(() -> namedIn(block.info()))
                .or(() -> namedIn(block.firstLine()))
                .or(() -> namedIn(block.before()));
    }

    /** The first word that is the name of a file, read once from left to right. */
    private Optional<String> namedIn(String line) {
        int end = Math.min(line.length(), LONGEST_SEARCHED);
        int from = 0;
        while (from < end) {
            int to = from;
            while (to < end && isOfPath(line.charAt(to))) {
                to++;
            }
            String word = trimmed(line.substring(from, to));
            Optional<String> path = hasEnding(word) ? start.called(word) : Optional.empty();
            if (path.isPresent()) {
                return path;
            }
            from = to + 1;
        }
        return Optional.empty();
    }

    private static boolean isOfPath(char c) {
        return c < 128 && (Character.isLetterOrDigit(c) || "_.-/".indexOf(c) >= 0);
    }

    /** Without the marks of a comment before, and without what ends a sentence. */
    private static String trimmed(String word) {
        int from = 0;
        while (from < word.length()
                && (word.charAt(from) == '/' || word.charAt(from) == '-' || word.startsWith("./", from))) {
            from++;
        }
        int to = word.length();
        while (to > from && "./-".indexOf(word.charAt(to - 1)) >= 0) {
            to--;
        }
        return word.substring(from, to);
    }

    private static boolean hasEnding(String word) {
        int dot = word.lastIndexOf('.');
        return dot > 0
                && word.length() - dot - 1 <= LONGEST_ENDING
                && dot + 1 < word.length()
                && Character.isLetter(word.charAt(dot + 1));
    }

    /** The difference between two states of a file; empty if there is none. */
    public static Optional<FileChange> between(String path, String before, String after) {
        return LineDiff.between(path, before.lines().toList(), after.lines().toList(), ComparisonBudget.whole());
    }

    /**
     * Where a change does not fit the starting code.
     *
     * @return in words; empty if every kept and removed line stands where the change says
     */
    static Optional<String> misfit(StartingCode start, FileChange change) {
        if (change.sort() == FileChange.Sort.ADDED) {
            return start.has(change.path()) ? Optional.of(change.path() + " is there already") : Optional.empty();
        }
        if (!start.has(change.from())) {
            return Optional.of(change.from() + " is not in the starting code");
        }
        List<String> lines = start.lines(change.from());
        for (Hunk hunk : change.hunks()) {
            List<String> expected = hunk.linesBefore();
            int from = expected.isEmpty() ? 0 : hunk.before() - 1;
            if (from < 0
                    || from + expected.size() > lines.size()
                    || !lines.subList(from, from + expected.size()).equals(expected)) {
                return Optional.of(
                        "%s, line %d, reads otherwise in the starting code".formatted(change.from(), hunk.before()));
            }
        }
        return Optional.empty();
    }
}
