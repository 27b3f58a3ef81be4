package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.function.Predicate;
import org.mossbank.e2e.DemoInPreparation;
import org.mossbank.standin.StandIn;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.ServerProcess;
import org.mossbank.testkit.TestDatabase;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** The server is killed in the middle of a run; nothing that had come is lost, and nothing is asked twice. */
public class RunCrashTest {
    private static final Path ROOT = Path.of(System.getProperty("mossbank.root"));
    private static final String SECRET = "heron under the jetty";
    private static final Duration PATIENCE = Duration.ofMinutes(3);
    private static final int CELLS = 8;

    private static ServerProcess start(TestDatabase database) {
        return ServerProcess.startDemo(
                ROOT, database, Map.of("MOSSBANK_ALLOWED_SOURCES", "127.0.0.1", "MOSSBANK_SECRETS_STANDIN", SECRET));
    }

    private static ApiClient lead(ServerProcess server) {
        return ApiClient.signedIn(server.address(), "orla", "tide and lantern");
    }

    private static List<String> ids(JsonNode list) {
        return list.valueStream().map(n -> n.path("id").asString()).toList();
    }

    private static boolean has(JsonNode run, Predicate<JsonNode> cell) {
        return run.path("cells").valueStream().anyMatch(cell);
    }

    private static JsonNode await(ApiClient lead, String run, Predicate<JsonNode> until) throws InterruptedException {
        Instant end = Instant.now().plus(PATIENCE);
        JsonNode now = lead.get(run).json();
        while (!until.test(now)) {
            assertThat(Instant.now()).as("waited too long: " + now).isBefore(end);
            TimeUnit.MILLISECONDS.sleep(100);
            now = lead.get(run).json();
        }
        return now;
    }

    private static List<JsonNode> answers(ApiClient lead, String study) {
        List<JsonNode> all = new ArrayList<>();
        for (String prompt : ids(lead.get(study + "/prompts").json())) {
            lead.get(study + "/prompts/" + prompt + "/answers").json().forEach(all::add);
        }
        return all;
    }

    @Test
    public void whatHadComeIsKeptAndNothingIsAskedTwice() throws IOException, InterruptedException {
        TestDatabase database = TestDatabase.create();
        try (StandIn standIn = StandIn.start(0, List.of(ROOT.resolve("demo-next")), SECRET)) {
            ServerProcess server = start(database);
            ApiClient lead = lead(server);
            String study = "/api/studies/"
                    + DemoInPreparation.bringInCollecting(ROOT, lead, standIn.port(), "?fault=slow&hurry=4");
            int before = answers(lead, study).size();
            List<String> candidates = lead.get(study + "/candidates")
                    .json()
                    .valueStream()
                    .filter(c -> !c.path("key").asString().equals("quillwort"))
                    .map(c -> c.path("id").asString())
                    .toList();
            JsonNode started = lead.post(
                            study + "/runs",
                            Map.of(
                                    "promptIds",
                                    ids(lead.get(study + "/prompts").json()),
                                    "candidateIds",
                                    candidates,
                                    "attempts",
                                    1,
                                    "onlyMissing",
                                    false,
                                    "followUps",
                                    0))
                    .json();
            String run = study + "/runs/" + started.path("id").asString();

            await(
                    lead,
                    run,
                    r -> has(r, c -> c.path("state").asString().equals("DONE"))
                            && has(r, c -> c.path("tokensSoFar").asLong() > 0));
            server.kill();
            int asked = standIn.asked("brindle") + standIn.asked("tansy");
            assertThat(asked).isLessThan(CELLS);

            ServerProcess again = start(database);
            JsonNode finished =
                    await(lead(again), run, r -> r.path("state").asString().equals("FINISHED"));

            assertThat(standIn.asked("brindle") + standIn.asked("tansy")).isEqualTo(CELLS);
            List<JsonNode> after = answers(lead(again), study);
            assertThat(after).hasSize(before + CELLS);
            List<JsonNode> interrupted = finished.path("cells")
                    .valueStream()
                    .filter(c -> c.path("notes").asString("").contains("The server stopped"))
                    .toList();
            assertThat(interrupted).isNotEmpty();
            assertThat(interrupted)
                    .allSatisfy(c -> assertThat(c.path("outcome").asString()).isIn("INCOMPLETE", "FAILED"));
            assertThat(after).as("what had come in part is there").anySatisfy(a -> {
                assertThat(interrupted.stream().map(c -> c.path("answerId").asString()))
                        .contains(a.path("id").asString());
                assertThat(a.path("text").asString()).isNotBlank();
            });
            again.close();
        }
    }
}
