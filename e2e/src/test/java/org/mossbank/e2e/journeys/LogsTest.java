package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.ServerProcess;
import org.mossbank.testkit.TestDatabase;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The log as JSON: each line by itself, with the id of the request that the answer names too, and without secrets. */
public class LogsTest {
    private static final Path ROOT = Path.of(System.getProperty("mossbank.root"));
    private static final String PASSWORD = "tide and lantern";

    @Test
    public void everyLineIsJsonAndSaysWhichRequestItIsAbout() {
        Map<String, String> settings = new HashMap<>(ServerProcess.AMONG_MANY);
        settings.put("MOSSBANK_LOG_FORMAT", "logstash");
        settings.put("MOSSBANK_PROVIDERS_ISLAND_NAME", "The island");
        settings.put("MOSSBANK_PROVIDERS_ISLAND_ISSUER", "http://127.0.0.1:1");
        settings.put("MOSSBANK_PROVIDERS_ISLAND_CLIENT", "mossbank");
        settings.put("MOSSBANK_PROVIDERS_ISLAND_SECRET", "nobody hears it");
        try (ServerProcess server = ServerProcess.startDemo(ROOT, TestDatabase.create(), settings)) {
            ApiClient client = ApiClient.signedIn(server.address(), "orla", PASSWORD);
            String id = client.get("/api/sign-in/island")
                    .raw()
                    .headers()
                    .firstValue("X-Request-Id")
                    .orElseThrow();

            List<JsonNode> lines = server.log()
                    .lines()
                    .map(line -> JsonMapper.shared().readTree(line))
                    .toList();

            assertThat(lines)
                    .isNotEmpty()
                    .allSatisfy(l -> assertThat(l.has("message")).isTrue());
            assertThat(lines.stream()
                            .filter(l -> l.path("request").asString("").equals(id))
                            .map(l -> l.path("message").asString()))
                    .anySatisfy(m -> assertThat(m).contains("a sign-in by a provider failed"));
            assertThat(server.log()).doesNotContain("nobody hears it", PASSWORD, "Quillwort");
        }
    }
}
