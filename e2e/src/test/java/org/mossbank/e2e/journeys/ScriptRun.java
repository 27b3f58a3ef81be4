package org.mossbank.e2e.journeys;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** What the project's command said, and how it ended. */
record ScriptRun(int status, String said) {
    static ScriptRun of(Path root, Map<String, String> environment, String... arguments) {
        List<String> command = new ArrayList<>(List.of(root.resolve("mossbank").toString()));
        command.addAll(List.of(arguments));
        ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true);
        builder.environment().putAll(environment);
        try {
            Process process = builder.start();
            process.getOutputStream().close();
            String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            return new ScriptRun(process.waitFor(), said);
        } catch (IOException | InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }
}
