package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import org.awaitility.Awaitility;
import org.mossbank.standin.StandIn;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.DemoInPreparation;
import tools.jackson.databind.JsonNode;

/** A run against the stand-in that is in its middle when the server is killed. */
final class RunUnderWay implements AutoCloseable {
    private static final Duration PATIENCE = Duration.ofMinutes(3);
    private static final int CELLS = 10;

    private final Path root;
    private final StandIn standIn;
    private String study = "";
    private String run = "";
    private int before;

    RunUnderWay(Path root, String secret) throws IOException {
        this.root = root;
        this.standIn = StandIn.start(0, List.of(root.resolve("demo-next")), secret);
    }

    private static ApiClient lead(URI address) {
        return ApiClient.signedIn(address, "orla", "tide and lantern");
    }

    private int asked() {
        return standIn.asked("brindle") + standIn.asked("tansy");
    }

    private static List<String> ids(JsonNode list) {
        return list.valueStream().map(n -> n.path("id").asString()).toList();
    }

    private static boolean has(JsonNode run, Predicate<JsonNode> cell) {
        return run.path("cells").valueStream().anyMatch(cell);
    }

    private static JsonNode await(ApiClient lead, String run, Predicate<JsonNode> until) {
        return Awaitility.await()
                .atMost(PATIENCE)
                .pollInterval(Duration.ofMillis(100))
                .until(() -> lead.get(run).json(), until);
    }

    private static List<JsonNode> answers(ApiClient lead, String study) {
        List<JsonNode> all = new ArrayList<>();
        for (String prompt : ids(lead.get(study + "/prompts").json())) {
            lead.get(study + "/prompts/" + prompt + "/answers").json().forEach(all::add);
        }
        return all;
    }

    /** Starts it, and waits until one answer has come and another has come in part. */
    void beginAndAwaitItsMiddle(URI address) {
        ApiClient lead = lead(address);
        study = "/api/studies/"
                + DemoInPreparation.bringInCollecting(root, lead, standIn.port(), "?fault=slow&hurry=4");
        before = answers(lead, study).size();
        List<String> candidates = lead.get(study + "/candidates")
                .json()
                .valueStream()
                .filter(c -> !c.path("key").asString().equals("quillwort"))
                .map(c -> c.path("id").asString())
                .toList();
        Map<String, Object> what = Map.of(
                "promptIds",
                ids(lead.get(study + "/prompts").json()),
                "candidateIds",
                candidates,
                "attempts",
                1,
                "onlyMissing",
                false,
                "followUps",
                0);
        run = study + "/runs/"
                + lead.post(study + "/runs", what).json().path("id").asString();
        await(
                lead,
                run,
                r -> has(r, c -> c.path("state").asString().equals("DONE"))
                        && has(r, c -> c.path("tokensSoFar").asLong() > 0));
    }

    /** Nothing that had come is lost, and nothing was asked twice. */
    void isFinishedAsIfNothingHadBeen(URI address) {
        ApiClient lead = lead(address);
        JsonNode finished = await(lead, run, r -> r.path("state").asString().equals("FINISHED"));

        assertThat(asked()).isEqualTo(CELLS);
        List<JsonNode> after = answers(lead, study);
        assertThat(after).hasSize(before + CELLS);
        List<JsonNode> interrupted = finished.path("cells")
                .valueStream()
                .filter(c -> c.path("notes").asString("").contains("was not heard of"))
                .toList();
        assertThat(interrupted)
                .isNotEmpty()
                .allSatisfy(c -> assertThat(c.path("outcome").asString()).isIn("INCOMPLETE", "FAILED"));
        List<String> kept =
                interrupted.stream().map(c -> c.path("answerId").asString()).toList();
        assertThat(after).as("what had come in part is there").anySatisfy(a -> {
            assertThat(kept).contains(a.path("id").asString());
            assertThat(a.path("text").asString()).isNotBlank();
        });
    }

    /** Every reply that was paid for is there whole, each asked for once, and nobody was given up. */
    void isFinishedUndisturbed(URI address) {
        ApiClient lead = lead(address);
        JsonNode finished = await(lead, run, r -> r.path("state").asString().equals("FINISHED"));

        assertThat(finished.path("cells").valueStream())
                .hasSize(CELLS)
                .allSatisfy(c -> assertThat(c.path("outcome").asString())
                        .as(c.toString())
                        .isEqualTo("COMPLETE"))
                .noneSatisfy(c -> assertThat(c.path("notes").asString("")).contains("not heard of"));
        assertThat(asked()).isEqualTo(CELLS);
        assertThat(answers(lead, study)).hasSize(before + CELLS);
    }

    @Override
    public void close() {
        standIn.close();
    }
}
