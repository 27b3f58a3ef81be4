package org.mossbank.testkit;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * The packaged server unpacked, with the classes that it loads written down, as the start command has it: once for each build.
 * Packed, it takes twice as long to start, and journeys start a dozen.
 */
public final class QuickStart {
    private static final Map<Path, QuickStart> MADE = new HashMap<>();

    private final Path root;
    private final Path unpacked;
    private final Path classes;
    private @Nullable TestDatabase demo;

    private QuickStart(Path root, Path packed) throws IOException {
        this.root = root;
        Path folder = root.resolve("server/target/unpacked");
        unpacked = folder.resolve(packed.getFileName());
        classes = folder.resolve("classes.jsa");
        if (!Files.exists(classes)
                || Files.getLastModifiedTime(classes).compareTo(Files.getLastModifiedTime(packed)) < 0) {
            empty(folder);
            unpack(packed, folder);
            demo = startedWithDemo(List.of("-XX:ArchiveClassesAtExit=" + classes, "-jar", unpacked.toString()));
        }
    }

    /** @throws IllegalStateException if the server is not packaged yet, or does not start */
    public static QuickStart of(Path root) {
        synchronized (MADE) {
            return MADE.computeIfAbsent(root, r -> {
                try {
                    return new QuickStart(r, packed(r));
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
            });
        }
    }

    /** The server with all that it needs in one file. */
    static Path packed(Path root) throws IOException {
        try (Stream<Path> files = Files.list(root.resolve("server/target"))) {
            return files.filter(f -> f.toString().endsWith("-exec.jar"))
                    .findFirst()
                    .orElseThrow(() -> new IllegalStateException("the server is not packaged yet"));
        }
    }

    private static void empty(Path folder) throws IOException {
        if (!Files.exists(folder)) {
            return;
        }
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path file : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.delete(file);
            }
        }
    }

    private static void unpack(Path packed, Path folder) throws IOException {
        Process java = new ProcessBuilder(
                        "java",
                        "-Djarmode=tools",
                        "-jar",
                        packed.toString(),
                        "extract",
                        "--destination",
                        folder.toString())
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start();
        if (java.onExit().join().exitValue() != 0) {
            throw new IllegalStateException("cannot unpack " + packed);
        }
    }

    /** A database into which a server that has ended brought the demo. */
    private TestDatabase startedWithDemo(List<String> how) {
        TestDatabase database = TestDatabase.create();
        ServerProcess.start(root, how, database, ServerProcess.demo(root, ServerProcess.AMONG_MANY))
                .close();
        return database;
    }

    /** What comes after {@code java} and its settings. */
    List<String> arguments() {
        return List.of(
                "-XX:SharedArchiveFile=" + classes, "-Xshare:auto", "-Xlog:cds=off", "-jar", unpacked.toString());
    }

    /** A database of its own that has the demo already. */
    public synchronized TestDatabase databaseWithDemo() {
        if (demo == null) {
            demo = startedWithDemo(arguments());
        }
        return demo.copy();
    }
}
