package org.mossbank.testkit;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.jar.JarFile;
import java.util.stream.Stream;

/**
 * The packaged server, unpacked once for a build as the start command unpacks it, with its classes recorded: then it starts in a third
 * of the time, and suites start it a dozen times.
 */
final class PackagedServer {
    private static final String RECORDED = "classes.jsa";

    private final Path root;
    private final Path folder;

    private PackagedServer(Path root, Path folder) {
        this.root = root;
        this.folder = folder;
    }

    /** Unpacks it if nobody has; others wait. */
    static synchronized PackagedServer of(Path root) throws IOException {
        Path jar = jar(root.resolve("server/target"), "-exec.jar");
        String build = Files.getLastModifiedTime(jar).toMillis() + "-" + Files.size(jar);
        PackagedServer server = new PackagedServer(root, root.resolve("e2e/target/app-" + build));
        if (!Files.exists(server.folder)) {
            server.unpack(jar);
        }
        return server;
    }

    private static Path jar(Path folder, String ending) throws IOException {
        try (Stream<Path> files = Files.list(folder)) {
            return files.filter(f -> f.toString().endsWith(ending))
                    .findFirst()
                    .orElseThrow(() -> new IllegalStateException("the server is not packaged yet"));
        }
    }

    private void unpack(Path jar) throws IOException {
        Files.createDirectories(folder.getParent());
        run(List.of("java", "-Djarmode=tools", "-jar", jar.toString(), "extract", "--destination", folder.toString()));
    }

    private static void run(List<String> command) throws IOException {
        try {
            int status = new ProcessBuilder(command)
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start()
                    .waitFor();
            if (status != 0) {
                throw new IllegalStateException("the server could not be unpacked");
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("unpacking was interrupted", e);
        }
    }

    boolean isRecorded() {
        return Files.exists(folder.resolve(RECORDED));
    }

    /**
     * The command that starts it.
     *
     * @param jit how far code is compiled, from 1 to 4
     */
    List<String> command(String jit) throws IOException {
        Path jar = jar(folder, ".jar");
        List<String> command = new ArrayList<>(List.of("java", "-XX:TieredStopAtLevel=" + jit, "-Xmx1g"));
        command.add("@" + root.resolve("server/jvm.args"));
        // What was not recorded is recorded at the end of this start.
        command.addAll(
                isRecorded()
                        ? List.of("-XX:SharedArchiveFile=" + folder.resolve(RECORDED), "-Xshare:auto", "-Xlog:cds=off")
                        : List.of("-XX:ArchiveClassesAtExit=" + folder.resolve(RECORDED)));
        command.add("-Dspring.aot.enabled=" + hasWorkedOutBeans(jar));
        command.addAll(List.of("-jar", jar.toString()));
        return command;
    }

    /** A server that was not built to start quickly must not be told to. */
    private static boolean hasWorkedOutBeans(Path jar) throws IOException {
        try (JarFile file = new JarFile(jar.toFile())) {
            return file.stream().anyMatch(e -> e.getName().endsWith("__ApplicationContextInitializer.class"));
        }
    }
}
