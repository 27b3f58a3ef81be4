package org.mossbank.core.change;

import com.github.difflib.DiffUtils;
import com.github.difflib.patch.AbstractDelta;
import com.github.difflib.patch.ChangeDelta;
import com.github.difflib.patch.Chunk;
import com.github.difflib.patch.Patch;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.mossbank.core.markdown.FencedBlock;

/**
 * What a Markdown answer changes in the starting code. Two things count: blocks that hold a unified diff, and blocks that print
 * a file of the starting code again: those that hold much of its lines, or declare all its types anew. An excerpt of a file is
 * neither: what it leaves out was not removed.
 */
public final class AnswerChanges {
    /** Lines kept around a change. */
    private static final int CONTEXT = 3;

    /** Lines on both sides together that are still compared line by line. */
    private static final int LONGEST_COMPARED = 12_000;

    /** A block prints a file again if it holds at least this share of the file's lines that are not blank. */
    private static final double SHARE_OF_A_REPRINT = 0.5;

    /** A line that stands for lines left out: dots alone, or a comment that begins with them. Dots before code spread it. */
    private static final Pattern LEFT_OUT =
            Pattern.compile("(?m)^[ \\t]*(?:(?://|#|--|\\{?/\\*|<!--)[ \\t]*(?:\\.\\.\\.|…)|(?:\\.\\.\\.|…)[ \\t]*$)");

    /** A type declared at the left edge, not within another. */
    private static final Pattern TYPE =
            Pattern.compile("(?m)^(?:\\w[\\w ]* )?(?:class|record|interface|enum|struct|trait|object) +(\\w+)");

    /** A line of a file's head, which says where it belongs and what it uses. */
    private static final Pattern HEAD = Pattern.compile(
            "^(?:package |import |from \\S+ import |using |use |#include|namespace .*;|require\\b|require_relative\\b).*");

    private static final Pattern PATH = Pattern.compile("[\\w.-]+(?:/[\\w.-]+)*\\.[A-Za-z]\\w{0,7}");
    private static final Set<String> DIFF_LANGUAGES = Set.of("diff", "patch", "udiff");

    private final Map<String, String> startingCode;
    private final Map<String, List<FileChange>> changes = new LinkedHashMap<>();

    private AnswerChanges(Map<String, String> startingCode) {
        this.startingCode = startingCode;
    }

    /**
     * The changes of an answer; of a file that comes more than once, the last, as that is what the answer ends in.
     *
     * @param startingCode text by path
     * @param answer       Markdown
     */
    public static List<FileChange> of(Map<String, String> startingCode, String answer) {
        AnswerChanges all = new AnswerChanges(startingCode);
        FencedBlock.in(answer).forEach(all::take);
        return LineNatures.told(
                all.changes.values().stream().flatMap(List::stream).toList());
    }

    /** Tells which files an answer's blocks print again. */
    static AnswerChanges reader(Map<String, String> startingCode) {
        return new AnswerChanges(startingCode);
    }

    static boolean isDiff(FencedBlock block) {
        return DIFF_LANGUAGES.contains(block.language());
    }

    private void take(FencedBlock block) {
        if (isDiff(block)) {
            try {
                put(UnifiedDiff.parse(block.content()));
            } catch (MalformedDiff e) {
                // Shown as it is; it changes nothing that could be counted.
                return;
            }
        } else {
            reprinted(block).ifPresent(path -> {
                String start = startingCode.get(path);
                Optional<FileChange> change = between(path, start, withHead(start, block.content()));
                changes.remove(path);
                change.ifPresent(c -> put(List.of(c)));
            });
        }
    }

    /** Code that says nothing of a file's head leaves it as it is: few answers print again what stays above the first type. */
    private static String withHead(String start, String code) {
        if (code.lines().anyMatch(l -> HEAD.matcher(l).matches())) {
            return code;
        }
        StringBuilder head = new StringBuilder();
        boolean says = false;
        for (String line : start.lines().toList()) {
            boolean isHead = HEAD.matcher(line).matches();
            if (!isHead && !line.isBlank()) {
                break;
            }
            says |= isHead;
            head.append(line).append('\n');
        }
        return says ? head + code : code;
    }

    private void put(List<FileChange> fresh) {
        Map<String, List<FileChange>> byPath = new LinkedHashMap<>();
        fresh.forEach(
                c -> byPath.computeIfAbsent(c.path(), p -> new ArrayList<>()).add(c));
        byPath.keySet().forEach(changes::remove);
        changes.putAll(byPath);
    }

    /** The file that a block prints again: the one it names, or the one it is most like. */
    Optional<String> reprinted(FencedBlock block) {
        Set<String> lines = solid(block.content());
        Set<String> types = types(block.content());
        Optional<String> named = named(block);
        return startingCode.keySet().stream()
                .filter(path -> named.isEmpty() || named.get().equals(path))
                .filter(path -> !LEFT_OUT.matcher(block.content()).find()
                        || LEFT_OUT.matcher(startingCode.get(path)).find())
                .filter(path -> share(path, lines) >= SHARE_OF_A_REPRINT || declaresAnew(path, types))
                .max((a, b) -> Double.compare(share(a, lines), share(b, lines)));
    }

    /** In the fence's info, in the block's first line, or in the line above. */
    private Optional<String> named(FencedBlock block) {
        String first = block.lines().isEmpty() ? "" : block.lines().get(0);
        for (String line : List.of(block.info(), first, block.before())) {
            Matcher paths = PATH.matcher(line);
            while (paths.find()) {
                String found = paths.group();
                Optional<String> path = startingCode.keySet().stream()
                        .filter(p -> p.equals(found) || p.endsWith("/" + found))
                        .findFirst();
                if (path.isPresent()) {
                    return path;
                }
            }
        }
        return Optional.empty();
    }

    private double share(String path, Set<String> lines) {
        Set<String> ofFile = solid(startingCode.get(path));
        long held = ofFile.stream().filter(lines::contains).count();
        return ofFile.isEmpty() ? 0 : (double) held / ofFile.size();
    }

    /** Whether types are those of a file whose name one of them has: then it is the file, however much of it is new. */
    private boolean declaresAnew(String path, Set<String> types) {
        String name = path.substring(path.lastIndexOf('/') + 1).replaceFirst("\\.\\w+$", "");
        Set<String> ofFile = types(startingCode.get(path));
        return ofFile.contains(name) && types.containsAll(ofFile);
    }

    private static Set<String> types(String text) {
        Set<String> names = new HashSet<>();
        TYPE.matcher(text).results().forEach(found -> names.add(found.group(1)));
        return names;
    }

    private static Set<String> solid(String text) {
        Set<String> solid = new HashSet<>();
        text.lines().map(String::strip).filter(l -> !l.isEmpty()).forEach(solid::add);
        return solid;
    }

    /**
     * The difference between two states of a file; empty if there is none. Time and memory grow with the lines times the
     * differences between them, so very long files that share little are shown as wholly replaced.
     */
    public static Optional<FileChange> between(String path, String before, String after) {
        List<String> old = before.lines().toList();
        List<String> fresh = after.lines().toList();
        List<AbstractDelta<String>> deltas = deltas(old, fresh);
        List<Hunk> hunks = new ArrayList<>();
        int next = 0;
        while (next < deltas.size()) {
            int last = next;
            while (last + 1 < deltas.size()
                    && deltas.get(last + 1).getSource().getPosition() - end(deltas.get(last)) <= 2 * CONTEXT) {
                last++;
            }
            hunks.add(hunk(old, deltas.subList(next, last + 1)));
            next = last + 1;
        }
        return hunks.isEmpty()
                ? Optional.empty()
                : Optional.of(new FileChange(path, path, FileChange.Sort.CHANGED, hunks));
    }

    private static List<AbstractDelta<String>> deltas(List<String> old, List<String> fresh) {
        if (old.size() + fresh.size() <= LONGEST_COMPARED || old.equals(fresh)) {
            return DiffUtils.diff(old, fresh).getDeltas();
        }
        Patch<String> whole = new Patch<>();
        whole.addDelta(new ChangeDelta<>(new Chunk<>(0, old), new Chunk<>(0, fresh)));
        return whole.getDeltas();
    }

    private static int end(AbstractDelta<String> delta) {
        return delta.getSource().getPosition() + delta.getSource().size();
    }

    private static Hunk hunk(List<String> old, List<AbstractDelta<String>> deltas) {
        AbstractDelta<String> first = deltas.get(0);
        int start = Math.max(0, first.getSource().getPosition() - CONTEXT);
        int shift = first.getTarget().getPosition() - first.getSource().getPosition();
        List<ChangedLine> lines = new ArrayList<>();
        int at = start;
        for (AbstractDelta<String> delta : deltas) {
            old.subList(at, delta.getSource().getPosition())
                    .forEach(l -> lines.add(new ChangedLine(ChangedLine.Kind.KEPT, l)));
            delta.getSource().getLines().forEach(l -> lines.add(new ChangedLine(ChangedLine.Kind.REMOVED, l)));
            delta.getTarget().getLines().forEach(l -> lines.add(new ChangedLine(ChangedLine.Kind.ADDED, l)));
            at = end(delta);
        }
        old.subList(at, Math.min(old.size(), at + CONTEXT))
                .forEach(l -> lines.add(new ChangedLine(ChangedLine.Kind.KEPT, l)));
        return new Hunk(start + 1, start + shift + 1, lines);
    }

    /**
     * Where a change does not fit the starting code.
     *
     * @return in words; empty if every kept and removed line stands where the change says
     */
    public static Optional<String> misfit(Map<String, String> startingCode, FileChange change) {
        if (change.sort() == FileChange.Sort.ADDED) {
            return startingCode.containsKey(change.path())
                    ? Optional.of(change.path() + " is there already")
                    : Optional.empty();
        }
        String text = startingCode.get(change.from());
        if (text == null) {
            return Optional.of(change.from() + " is not in the starting code");
        }
        List<String> lines = text.lines().toList();
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
