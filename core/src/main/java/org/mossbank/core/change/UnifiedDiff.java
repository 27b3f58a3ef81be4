package org.mossbank.core.change;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * Reads unified diffs over one or several files, as POSIX {@code diff -u} and git write them. A reader of our own, because a
 * malformed one must be refused with its line, and because the libraries that read diffs take a hunk that ends early.
 *
 * <p>Source: IEEE Std 1003.1-2017, utility {@code diff}, "Diff -u Output Format".
 */
public final class UnifiedDiff {
    private static final Pattern HUNK =
            Pattern.compile("^@@ -(\\d{1,9})(?:,(\\d{1,9}))? \\+(\\d{1,9})(?:,(\\d{1,9}))? @@.*$");
    private static final Pattern GIT_EXTENDED = Pattern.compile(
            "^(?:index |old mode |new mode |new file mode |deleted file mode |similarity index |dissimilarity index |rename from |rename to |copy from |copy to ).*$");
    private static final String NOWHERE = "/dev/null";

    private final List<String> lines;
    private final List<FileChange> changes = new ArrayList<>();
    private int at;

    private UnifiedDiff(String text) {
        this.lines = text.replace("\r\n", "\n").lines().toList();
    }

    /**
     * What a diff changes, file by file. Text before the first file, such as a commit's message, is passed over.
     *
     * @throws MalformedDiff if it is none, or a hunk does not hold what it announces
     */
    public static List<FileChange> parse(String text) throws MalformedDiff {
        UnifiedDiff diff = new UnifiedDiff(text);
        diff.files();
        return List.copyOf(diff.changes);
    }

    private void files() throws MalformedDiff {
        while (at < lines.size()) {
            if (isFileHead()) {
                file();
            } else if (line().startsWith("@@ ")) {
                throw new MalformedDiff(at + 1, "the names of the files, --- and +++, above a hunk");
            } else if (changes.isEmpty() || line().isBlank() || line().startsWith("-- ")) {
                at++;
            } else {
                throw new MalformedDiff(at + 1, "a hunk that begins with @@, or the next file");
            }
        }
        if (changes.isEmpty()) {
            throw new MalformedDiff(1, "a unified diff: --- and +++ with the file's names, then hunks");
        }
    }

    private String line() {
        return lines.get(at);
    }

    private boolean isFileHead() {
        return line().startsWith("diff --git ")
                || line().startsWith("--- ")
                        && at + 1 < lines.size()
                        && lines.get(at + 1).startsWith("+++ ");
    }

    private void file() throws MalformedDiff {
        int head = at + 1;
        Moved moved = line().startsWith("diff --git ") ? extendedHead() : new Moved(null, null);
        if (at < lines.size() && line().startsWith("--- ")) {
            String from = path(line(), "--- ");
            at++;
            if (at == lines.size() || !line().startsWith("+++ ")) {
                throw new MalformedDiff(at + 1, "the file's new name after +++");
            }
            String to = path(line(), "+++ ");
            at++;
            if (from.equals(NOWHERE) && to.equals(NOWHERE)) {
                throw new MalformedDiff(at, "a file on at least one side");
            }
            List<Hunk> hunks = hunks();
            if (hunks.isEmpty()) {
                throw new MalformedDiff(at + 1, "a hunk that begins with @@");
            }
            changes.add(change(from, to, hunks));
        } else if (moved.from != null && moved.to != null) {
            changes.add(new FileChange(safe(moved.to, head), safe(moved.from, head), FileChange.Sort.MOVED, List.of()));
        } else {
            throw new MalformedDiff(at + 1, "--- with the file's name, or where it was moved");
        }
    }

    private FileChange change(String from, String to, List<Hunk> hunks) {
        if (from.equals(NOWHERE)) {
            return new FileChange(to, to, FileChange.Sort.ADDED, hunks);
        }
        if (to.equals(NOWHERE)) {
            return new FileChange(from, from, FileChange.Sort.REMOVED, hunks);
        }
        return new FileChange(to, from, from.equals(to) ? FileChange.Sort.CHANGED : FileChange.Sort.MOVED, hunks);
    }

    private record Moved(@Nullable String from, @Nullable String to) {}

    private Moved extendedHead() throws MalformedDiff {
        String from = null;
        String to = null;
        at++;
        while (at < lines.size() && GIT_EXTENDED.matcher(line()).matches()) {
            if (line().startsWith("rename from ")) {
                from = line().substring("rename from ".length());
            } else if (line().startsWith("rename to ")) {
                to = line().substring("rename to ".length());
            }
            at++;
        }
        if (at < lines.size() && (line().startsWith("GIT binary patch") || line().startsWith("Binary files "))) {
            throw new MalformedDiff(at + 1, "changes of text, not of a binary file");
        }
        return new Moved(from, to);
    }

    /** Without the prefix that git adds, and without a time after a tab. */
    private String path(String line, String sign) throws MalformedDiff {
        String path = line.substring(sign.length()).split("\t", 2)[0].strip();
        if (path.equals(NOWHERE)) {
            return path;
        }
        String prefix = sign.equals("--- ") ? "a/" : "b/";
        return safe(path.startsWith(prefix) ? path.substring(prefix.length()) : path, at + 1);
    }

    private static String safe(String path, int line) throws MalformedDiff {
        if (path.isBlank()
                || path.startsWith("/")
                || path.contains("\\")
                || List.of(path.split("/")).contains("..")) {
            throw new MalformedDiff(line, "a path below the starting code, with / between folders");
        }
        return path;
    }

    private List<Hunk> hunks() throws MalformedDiff {
        List<Hunk> hunks = new ArrayList<>();
        int least = 0;
        while (at < lines.size() && line().startsWith("@@")) {
            Matcher head = HUNK.matcher(line());
            if (!head.matches()) {
                throw new MalformedDiff(at + 1, "a hunk's head such as @@ -3,7 +3,8 @@");
            }
            int before = Integer.parseInt(head.group(1));
            if (before < least) {
                throw new MalformedDiff(at + 1, "a hunk that stands after the one before it");
            }
            int headLine = at + 1;
            at++;
            int linesBefore = count(head.group(2));
            List<ChangedLine> body = body(linesBefore, count(head.group(4)), headLine);
            hunks.add(new Hunk(before, Integer.parseInt(head.group(3)), body));
            least = before + linesBefore;
        }
        return hunks;
    }

    private static int count(@Nullable String digits) {
        return digits == null ? 1 : Integer.parseInt(digits);
    }

    private List<ChangedLine> body(int linesBefore, int linesAfter, int headLine) throws MalformedDiff {
        List<ChangedLine> body = new ArrayList<>();
        int before = linesBefore;
        int after = linesAfter;
        while (before > 0 || after > 0) {
            if (at == lines.size()) {
                throw new MalformedDiff(
                        at,
                        "%d more lines before and %d after, as line %d announces".formatted(before, after, headLine));
            }
            String line = line();
            if (!line.startsWith("\\")) {
                // Many programs cut trailing blanks, so that an empty kept line has lost its space.
                ChangedLine.Kind kind = kind(line.isEmpty() ? ' ' : line.charAt(0), headLine);
                before -= kind == ChangedLine.Kind.ADDED ? 0 : 1;
                after -= kind == ChangedLine.Kind.REMOVED ? 0 : 1;
                if (before < 0 || after < 0) {
                    throw new MalformedDiff(at + 1, "no more lines of this sign, as line " + headLine + " announces");
                }
                body.add(new ChangedLine(kind, line.isEmpty() ? "" : line.substring(1)));
            }
            at++;
        }
        while (at < lines.size() && line().startsWith("\\")) {
            at++;
        }
        if (at < lines.size()
                && !line().isEmpty()
                && "+- ".indexOf(line().charAt(0)) >= 0
                && !isFileHead()
                && !line().startsWith("-- ")) {
            throw new MalformedDiff(at + 1, "no more lines in this hunk, as line " + headLine + " announces");
        }
        return body;
    }

    private ChangedLine.Kind kind(char sign, int headLine) throws MalformedDiff {
        return switch (sign) {
            case ' ' -> ChangedLine.Kind.KEPT;
            case '+' -> ChangedLine.Kind.ADDED;
            case '-' -> ChangedLine.Kind.REMOVED;
            default ->
                throw new MalformedDiff(
                        at + 1, "a line that begins with a space, + or -, as line " + headLine + " announces more");
        };
    }
}
