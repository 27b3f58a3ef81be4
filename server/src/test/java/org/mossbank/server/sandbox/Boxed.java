package org.mossbank.server.sandbox;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.time.Duration;
import java.util.Map;

/** The real sandbox, for tests. */
final class Boxed {
    private final Sandbox sandbox;

    Boxed() {
        try {
            sandbox = new Sandbox(Files.createTempDirectory("mossbank-sandbox-test"), 2);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    Sandbox sandbox() {
        return sandbox;
    }

    SandboxResult run(Map<String, String> files, String command, String input) {
        return run(files, command, input, SandboxLimits.usual());
    }

    SandboxResult run(Map<String, String> files, String command, String input, SandboxLimits limits) {
        return sandbox.run(
                new SandboxJob(WorkFiles.of(files), command, input, SandboxTools.none(), limits), new Sandbox.Stop());
    }

    /** For what must be ended. */
    static SandboxLimits brief() {
        return SandboxLimits.usual().within(Duration.ofSeconds(3));
    }
}
