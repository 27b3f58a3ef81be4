package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.awaitility.Awaitility;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.DemoInPreparation;
import tools.jackson.databind.JsonNode;

/** Trials that are in their middle when the server is killed. */
final class TrialsUnderWay {
    private static final Duration PATIENCE = Duration.ofMinutes(3);
    private static final int TRIALS = 25;

    /** What each trial waits with, so that its process is known among all others of the machine. */
    private static final String WAITS = "sleep 3.0417";

    private final Path root;
    private String study = "";
    private int ended;

    TrialsUnderWay(Path root) {
        this.root = root;
    }

    private static ApiClient lead(URI address) {
        return ApiClient.signedIn(address, "orla", "tide and lantern");
    }

    private JsonNode await(ApiClient lead, Predicate<JsonNode> until) {
        return Awaitility.await()
                .atMost(PATIENCE)
                .pollInterval(Duration.ofMillis(100))
                .until(() -> lead.get(study + "/trials").json().path("trials"), until);
    }

    private static long in(JsonNode trials, String state) {
        return trials.valueStream()
                .filter(t -> t.path("state").asString().equals(state))
                .count();
    }

    void beginAndAwaitTheirMiddle(URI address) {
        ApiClient lead = lead(address);
        study = "/api/studies/" + DemoInPreparation.bringInWithoutChecks(root, lead);
        String prompt = lead.get(study + "/prompts").json().at("/0/id").asString();
        Map<String, Object> check = new HashMap<>(Map.of(
                "toolchain", "java",
                "files", List.of(Map.of("path", "answer.sh", "text", WAITS + "\n")),
                "loose", Map.of("path", "loose.txt", "before", " ", "after", "", "importsFirst", false),
                "build", "",
                "run", "sh answer.sh",
                "limits", Map.of("seconds", 20, "memoryMb", 256, "processes", 64, "outputKb", 64),
                "withoutCode", "FAILS"));
        check.put(
                "runs",
                List.of(Map.of(
                        "name",
                        "waits",
                        "arguments",
                        List.of(),
                        "input",
                        "",
                        "before",
                        List.of(),
                        "status",
                        0,
                        "after",
                        List.of(),
                        "elsewhere",
                        "ALLOWED")));
        for (JsonNode one : lead.get(study + "/prompts").json()) {
            if (one.at("/content/title").asString().startsWith("Drift alarm")) {
                prompt = one.path("id").asString();
            }
        }
        assertThat(lead.put(study + "/prompts/" + prompt + "/check", Map.of("revision", 0, "content", check))
                        .status())
                .isEqualTo(200);
        assertThat(lead.post(study + "/trials", Map.of("promptIds", List.of(), "repetitions", 5))
                        .status())
                .isEqualTo(200);
        Awaitility.await().atMost(PATIENCE).until(() -> !waiting().isEmpty());
        ended = (int) in(await(lead, t -> in(t, "ENDED") >= 1 && in(t, "RUNNING") >= 1), "ENDED");
    }

    /** Nothing that a trial started outlives the server. */
    void nothingRunsOn() {
        Awaitility.await()
                .atMost(Duration.ofSeconds(10))
                .untilAsserted(() -> assertThat(waiting()).isEmpty());
    }

    private static List<String> waiting() throws IOException {
        try (Stream<Path> processes = Files.list(Path.of("/proc"))) {
            return processes
                    .filter(p -> p.getFileName().toString().matches("\\d{1,9}"))
                    .map(TrialsUnderWay::command)
                    .filter(c -> c.strip().equals(WAITS))
                    .toList();
        }
    }

    private static String command(Path process) {
        try {
            return new String(Files.readAllBytes(process.resolve("cmdline")), StandardCharsets.UTF_8)
                    .replace('\0', ' ');
        } catch (IOException e) {
            return "";
        }
    }

    void goOnAndCountOnce(URI address) {
        ApiClient lead = lead(address);
        JsonNode all = await(lead, t -> in(t, "ENDED") == TRIALS);
        assertThat(ended).isLessThan(TRIALS);
        assertThat(all).hasSize(TRIALS);
        assertThat(all.valueStream()
                        .map(t -> t.path("answerId").asString() + " "
                                + t.path("repetition").asInt())
                        .distinct())
                .hasSize(TRIALS);
        assertThat(all.valueStream().map(t -> t.path("outcome").asString()).distinct())
                .containsExactly("PASSED");
    }
}
