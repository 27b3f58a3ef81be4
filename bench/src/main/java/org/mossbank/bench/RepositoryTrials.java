package org.mossbank.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.DemoInPreparation;
import org.mossbank.testkit.DemoRepository;
import tools.jackson.databind.JsonNode;

/** A repository of 2,000 files that is copied, its one test run before an answer and after it. */
final class RepositoryTrials {
    private static final int FILES = 2_000;
    private static final int LINES = 60;
    private static final int TIMES = 5;
    private static final double NANOS_A_SECOND = 1e9;

    private RepositoryTrials() {}

    /** @param allowed below which the server may read with git */
    static void make(Path root, Path allowed) throws IOException, InterruptedException {
        Path large = Files.createDirectories(allowed.resolve("large"));
        for (int i = 0; i < FILES; i++) {
            Path folder = Files.createDirectories(large.resolve("part-" + i % 40));
            StringBuilder text = new StringBuilder();
            for (int line = 0; line < LINES; line++) {
                text.append("line ").append(line).append(" of file ").append(i).append(" of the large repository\n");
            }
            Files.writeString(folder.resolve("file-" + i + ".txt"), text);
        }
        DemoRepository.commit(root, large, "Large");
        DemoRepository.make(root, allowed);
    }

    static void time(Path root, ApiClient lead) {
        String study = "/api/studies/" + DemoInPreparation.bringInNext(root, lead);
        String prompt = lead.get(study + "/prompts").json().at("/0/id").asString();
        String commit = lead.post(study + "/starting-code/git/listing", Map.of("repository", "large", "commit", "main"))
                .json()
                .path("commit")
                .asString();
        Map<String, Object> check = new HashMap<>(Map.of(
                "toolchain",
                "shell",
                "files",
                List.of(),
                "build",
                "",
                "run",
                "true",
                "runs",
                List.of(),
                "tests",
                Map.of("command", "echo 1..1; echo 'ok 1 - there'", "format", "TAP", "reports", ""),
                "limits",
                Map.of("seconds", 20, "memoryMb", 768, "processes", 128, "outputKb", 256),
                "withoutCode",
                "FAILS"));
        for (int i = 0; i < TIMES; i++) {
            // Another name each time, so that the test is run before the answer too.
            check.put("repository", Map.of("repository", "large", "commit", commit, "wanted", List.of("no test " + i)));
            Map<String, Object> body = Map.of("subject", "STARTING_CODE", "content", check);
            timed(
                    "a repository of 2,000 files, read, laid out twice, its test run before and after",
                    () -> lead.post(study + "/prompts/" + prompt + "/check/try", body));
            timed("the same, laid out once more", () -> lead.post(study + "/prompts/" + prompt + "/check/try", body));
        }
    }

    private static void timed(String what, Supplier<ApiClient.Response> work) {
        long begun = System.nanoTime();
        ApiClient.Response response = work.get();
        double seconds = (System.nanoTime() - begun) / NANOS_A_SECOND;
        JsonNode came = response.json().path("result");
        if (!came.at("/summary/outcome").asString().equals("PASSED")) {
            throw new IllegalStateException(response.body());
        }
        System.out.printf(
                "%s: %.2f s, of that %d ms in the sandbox%n",
                what, seconds, came.path("millis").asLong());
    }
}
