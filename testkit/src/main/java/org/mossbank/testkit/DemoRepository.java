package org.mossbank.testkit;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/** The demo's repository that answers are tried in, made as the start command makes it. */
public final class DemoRepository {
    private static final String SCRIPT =
            "cp -r \"$1\" \"$2\"; . <(sed -n '/^demo_commit() {/,/^}/p' \"$3\"); demo_commit \"$2\" 'The quay'";

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
        Process process = new ProcessBuilder(List.of(
                        "bash",
                        "-ec",
                        SCRIPT,
                        "bash",
                        root.resolve("demo-quay").toString(),
                        quay.toString(),
                        root.resolve("mossbank").toString()))
                .redirectErrorStream(true)
                .start();
        String output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        if (process.waitFor() != 0) {
            throw new IOException("the repository could not be made: " + output);
        }
    }
}
