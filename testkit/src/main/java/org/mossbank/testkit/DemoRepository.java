package org.mossbank.testkit;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;

/** The demo's repository that answers are tried in, made as the start command makes it. */
public final class DemoRepository {
    private static final String SCRIPT = ". <(sed -n '/^demo_commit() {/,/^}/p' \"$1\"); demo_commit \"$2\" \"$3\"";

    private DemoRepository() {}

    /**
     * @param root    the project's folder
     * @param allowed below which a server may read with git
     */
    public static void make(Path root, Path allowed) throws IOException, InterruptedException {
        Path quay = Files.createDirectories(allowed).resolve("quay");
        if (Files.exists(quay)) {
            return;
        }
        Path from = root.resolve("demo-quay");
        try (Stream<Path> files = Files.walk(from)) {
            for (Path file : (Iterable<Path>) files.filter(Files::isRegularFile)::iterator) {
                Path to = quay.resolve(from.relativize(file).toString());
                Files.createDirectories(to.getParent());
                Files.copy(file, to);
            }
        }
        commit(root, quay, "The quay");
    }

    /** Commits all files of a folder, as a repository of its own; the same commit on every machine. */
    public static void commit(Path root, Path folder, String message) throws IOException, InterruptedException {
        Process process = new ProcessBuilder(List.of(
                        "bash", "-ec", SCRIPT, "bash", root.resolve("mossbank").toString(), folder.toString(), message))
                .redirectErrorStream(true)
                .start();
        String output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        if (process.waitFor() != 0) {
            throw new IOException("the repository could not be made: " + output);
        }
    }
}
