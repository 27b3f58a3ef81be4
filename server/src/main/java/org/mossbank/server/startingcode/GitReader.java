package org.mossbank.server.startingcode;

import com.fasterxml.jackson.annotation.JsonIgnore;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/**
 * Reads files at a commit with the git command itself. A repository, its git directory and whatever that borrows objects
 * from must lie, links followed, below a folder that the administrator allows. Only commands that read are run; no hook,
 * filter, pager or setting of the user or system takes part.
 */
@Component
class GitReader {
    static final int MOST_FILES = 20_000;
    private static final long MOST_BYTES = 8L << 20;
    private static final int SECONDS = 20;
    /** Of a whole repository: no more than a sandbox takes, with room for what is built of it. */
    private static final int MOST_COPIED = 3_000;

    private static final long MOST_BYTES_COPIED = 24L << 20;

    /** Files and folders below a repository's .git; each is looked at. */
    private static final int MOST_PARTS = 300_000;

    /** No option, no range, nothing that a shell or git would take apart. */
    private static final Pattern REVISION = Pattern.compile("[A-Za-z0-9_][A-Za-z0-9_./-]{0,199}");

    private final GitSettings settings;

    GitReader(GitSettings settings) {
        this.settings = settings;
    }

    /** A repository that may be read, at a commit. */
    record Commit(Path repository, String id) {}

    /** A file at a commit, with its size in bytes and the id of its content. */
    record Entry(String path, long bytes, @JsonIgnore String blob) {}

    /** What git is told, and how much it may say. */
    private record Traffic(byte[] input, long most) {}

    boolean isOff() {
        return settings.roots().isEmpty();
    }

    /** Finds the commit that a name means, in a repository that the administrator allows. */
    Commit resolve(String repository, String revision) {
        Path folder = allowed(below(repository));
        if (!REVISION.matcher(revision).matches() || revision.contains("..") || revision.endsWith(".lock")) {
            throw StartingCodeProblem.of("commit", "“" + revision + "” is no name of a commit");
        }
        Path gitDirectory =
                Path.of(text(folder, new Wanted("repository", "git directory"), "rev-parse", "--absolute-git-dir"));
        Path common = folder.resolve(
                text(folder, new Wanted("repository", "git directory"), "rev-parse", "--git-common-dir"));
        requireAllowed(gitDirectory, "repository");
        requireAllowed(common, "repository");
        requireWholeAndOwn(gitDirectory);
        requireWholeAndOwn(common);
        String id = text(
                folder,
                Wanted.commit("commit “" + revision + "”"),
                "rev-parse",
                "--verify",
                "--quiet",
                revision + "^{commit}");
        return new Commit(folder, id);
    }

    /** The absolute path of a repository that is called by its path below an allowed folder; of one that is not there, as it is. */
    private String below(String repository) {
        try {
            return settings.roots().stream()
                    .map(root -> root.resolve(repository))
                    .filter(Files::isDirectory)
                    .map(Path::toString)
                    .findFirst()
                    .orElse(repository);
        } catch (InvalidPathException e) {
            return repository;
        }
    }

    private Path allowed(String repository) {
        if (isOff()) {
            throw StartingCodeProblem.of("repository", "this server's administrator allows no folder for git");
        }
        try {
            Path path = Path.of(repository);
            if (!path.isAbsolute()) {
                throw StartingCodeProblem.of(
                        "repository", "there is none of that name in a folder that the administrator allows");
            }
            requireAllowed(path, "repository");
            return path.toRealPath();
        } catch (InvalidPathException | IOException e) {
            throw refused();
        }
    }

    /** The same words whether something is forbidden or not there, so that nothing is learned about the server's disk. */
    private static org.mossbank.server.shared.Problem refused() {
        return StartingCodeProblem.of("repository", "there is no repository in a folder that the administrator allows");
    }

    private void requireAllowed(Path path, String field) {
        try {
            Path real = path.toRealPath();
            for (Path root : settings.roots()) {
                if (Files.isDirectory(root) && real.startsWith(root.toRealPath())) {
                    return;
                }
            }
        } catch (IOException e) {
            // Not there: refused like what is forbidden.
        }
        throw refused();
    }

    /**
     * Nothing of a repository may stand elsewhere. Objects that it borrows would be read past the folders that are allowed,
     * as those may borrow in turn; and so would whatever a link below it leads to.
     */
    private void requireWholeAndOwn(Path gitDirectory) {
        for (String borrows : List.of("objects/info/alternates", "objects/info/http-alternates")) {
            if (Files.exists(gitDirectory.resolve(borrows), LinkOption.NOFOLLOW_LINKS)) {
                throw refused();
            }
        }
        try (Stream<Path> all = Files.walk(gitDirectory.toRealPath())) {
            int seen = 0;
            for (Path path : (Iterable<Path>) all::iterator) {
                seen++;
                if (Files.isSymbolicLink(path)) {
                    throw refused();
                }
                if (seen > MOST_PARTS) {
                    throw StartingCodeProblem.of("repository", "it has too many loose objects; git gc packs them");
                }
            }
        } catch (IOException | UncheckedIOException e) {
            throw refused();
        }
    }

    /** What git is asked for, as somebody reads it, and the field that names it. */
    private record Wanted(String field, String name) {
        static Wanted commit(String name) {
            return new Wanted("commit", name);
        }
    }

    /** The files at a commit; links and submodules are left out. */
    List<Entry> list(Commit commit) {
        String listing = new String(
                run(
                        commit.repository(),
                        Wanted.commit("commit"),
                        "ls-tree",
                        "-r",
                        "-z",
                        "-l",
                        "--full-tree",
                        commit.id()),
                StandardCharsets.UTF_8);
        List<Entry> entries = new ArrayList<>();
        for (String line : listing.split("\0")) {
            int tab = line.indexOf('\t');
            if (tab > 0) {
                String[] parts = line.substring(0, tab).split(" +");
                if (parts[1].equals("blob") && !parts[0].equals("120000")) {
                    if (!Character.isDigit(parts[3].charAt(0))) {
                        throw StartingCodeProblem.of("commit", "the repository lacks an object of it");
                    }
                    entries.add(new Entry(line.substring(tab + 1), Long.parseLong(parts[3]), parts[2]));
                }
            }
        }
        if (entries.size() > MOST_FILES) {
            throw StartingCodeProblem.of("commit", "it has more than " + MOST_FILES + " files");
        }
        return entries;
    }

    /** One file's bytes. */
    byte[] read(Commit commit, String path) {
        return run(
                commit.repository(),
                new Wanted("paths", "file “" + path + "”"),
                "cat-file",
                "blob",
                commit.id() + ":" + path);
    }

    /**
     * The bytes of all files at a commit as they were committed: no filter, no line ends and no keyword is put in. Links and
     * submodules are left out.
     *
     * @throws org.mossbank.server.shared.Problem 400 if there are more files or bytes than a copy may have
     */
    SortedMap<String, byte[]> all(Commit commit) {
        List<Entry> entries = list(commit);
        if (entries.size() > MOST_COPIED
                || entries.stream().mapToLong(Entry::bytes).sum() > MOST_BYTES_COPIED) {
            throw StartingCodeProblem.of(
                    "commit",
                    "of a repository that answers are tried in, at most %,d files of %d MB together are copied"
                            .formatted(MOST_COPIED, MOST_BYTES_COPIED >> 20));
        }
        StringBuilder asked = new StringBuilder();
        for (Entry entry : entries) {
            asked.append(entry.blob()).append('\n');
        }
        byte[] batch = run(
                commit.repository(),
                Wanted.commit("file of the commit"),
                new Traffic(asked.toString().getBytes(StandardCharsets.US_ASCII), 2 * MOST_BYTES_COPIED),
                "cat-file",
                "--batch");
        return split(batch, entries);
    }

    /** What {@code cat-file --batch} writes: a line with the id, the type and the size, the bytes, and a line's end. */
    private static SortedMap<String, byte[]> split(byte[] batch, List<Entry> entries) {
        SortedMap<String, byte[]> files = new TreeMap<>();
        int at = 0;
        for (Entry entry : entries) {
            int line = at;
            while (line < batch.length && batch[line] != '\n') {
                line++;
            }
            String head = new String(batch, at, line - at, StandardCharsets.US_ASCII);
            int from = line + 1;
            int to = from + (int) entry.bytes();
            if (!head.equals(entry.blob() + " blob " + entry.bytes()) || to >= batch.length) {
                throw StartingCodeProblem.of("commit", "the repository lacks an object of it");
            }
            files.put(entry.path(), Arrays.copyOfRange(batch, from, to));
            at = to + 1;
        }
        return files;
    }

    private String text(Path folder, Wanted what, String... arguments) {
        return new String(run(folder, what, arguments), StandardCharsets.UTF_8).strip();
    }

    private byte[] run(Path folder, Wanted what, String... arguments) {
        return run(folder, what, new Traffic(new byte[0], MOST_BYTES), arguments);
    }

    private byte[] run(Path folder, Wanted what, Traffic traffic, String... arguments) {
        List<String> command = new ArrayList<>(List.of(
                "git",
                "-c",
                "safe.directory=" + folder,
                "-c",
                "safe.bareRepository=all",
                "-c",
                "core.fsmonitor=false",
                "-c",
                "core.hooksPath=/dev/null",
                "-c",
                "protocol.allow=never",
                "--no-replace-objects",
                "--no-pager",
                "-C",
                folder.toString()));
        command.addAll(List.of(arguments));
        ProcessBuilder builder = new ProcessBuilder(command).redirectError(ProcessBuilder.Redirect.DISCARD);
        builder.environment().keySet().removeIf(name -> name.startsWith("GIT_") || name.startsWith("MOSSBANK_"));
        builder.environment()
                .putAll(Map.of(
                        "GIT_CONFIG_NOSYSTEM", "1",
                        "GIT_CONFIG_GLOBAL", "/dev/null",
                        "GIT_TERMINAL_PROMPT", "0",
                        "GIT_OPTIONAL_LOCKS", "0",
                        "GIT_NO_LAZY_FETCH", "1",
                        "LC_ALL", "C.UTF-8"));
        try {
            Process process = builder.start();
            Thread told = new Thread(() -> tell(process, traffic.input), "git-input");
            told.setDaemon(true);
            told.start();
            return outputOf(process, what, traffic.most);
        } catch (IOException e) {
            throw new UncheckedIOException("git cannot be run", e);
        }
    }

    /** Beside reading what it says: of many files, either alone would wait for the other. */
    private static void tell(Process process, byte[] input) {
        try (OutputStream to = process.getOutputStream()) {
            to.write(input);
        } catch (IOException e) {
            // It has ended; whoever reads what it said finds that it is not whole.
        }
    }

    private static byte[] outputOf(Process process, Wanted what, long most) throws IOException {
        // A watchdog ends a git that hangs; reading then ends too.
        Process watched = process;
        process.onExit().orTimeout(SECONDS, TimeUnit.SECONDS).exceptionally(late -> watched.destroyForcibly());
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (InputStream in = process.getInputStream()) {
            byte[] buffer = new byte[1 << 16];
            for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
                out.write(buffer, 0, n);
                if (out.size() > most) {
                    process.destroyForcibly();
                    throw StartingCodeProblem.of("paths", what.name + " is larger than " + (most >> 20) + " MB");
                }
            }
        }
        try {
            if (process.waitFor() != 0) {
                throw StartingCodeProblem.of(what.field, "there is no " + what.name);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw StartingCodeProblem.of("commit", "reading was interrupted");
        }
        return out.toByteArray();
    }
}
