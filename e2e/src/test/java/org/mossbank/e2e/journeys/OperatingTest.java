package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.QuickStart;
import org.mossbank.testkit.ServerProcess;
import org.mossbank.testkit.TestDatabase;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What an administrator looks at: a log of JSON lines, and what the doctor says. */
public class OperatingTest {
    private static final Path ROOT = Path.of(System.getProperty("mossbank.root"));
    private static final String PASSWORD = "tide and lantern";

    private TestDatabase database;
    /** Requests that an address from which nobody is signed in may make within a minute. */
    private static final int A_MINUTE = 60;

    private ServerProcess server;

    @BeforeClass
    public void start() {
        Map<String, String> settings = new HashMap<>(ServerProcess.AMONG_MANY);
        settings.put("MOSSBANK_LOG_FORMAT", "logstash");
        settings.put("MOSSBANK_PROVIDERS_ISLAND_NAME", "The island");
        settings.put("MOSSBANK_PROVIDERS_ISLAND_ISSUER", "http://127.0.0.1:1");
        settings.put("MOSSBANK_PROVIDERS_ISLAND_CLIENT", "mossbank");
        settings.put("MOSSBANK_PROVIDERS_ISLAND_SECRET", "nobody hears it");
        database = QuickStart.of(ROOT).databaseWithDemo();
        settings.put("MOSSBANK_REQUESTS_ADDRESS", String.valueOf(A_MINUTE));
        server = ServerProcess.startDemo(ROOT, database, settings);
    }

    @AfterClass(alwaysRun = true)
    public void stop() {
        server.close();
    }

    @Test
    public void everyLineIsJsonAndSaysWhichRequestItIsAbout() {
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

    @Test(dependsOnMethods = "everyLineIsJsonAndSaysWhichRequestItIsAbout")
    public void whoeverFloodsTheServerWaitsAndNobodyElseDoes() {
        ApiClient lead = ApiClient.signedIn(server.address(), "orla", PASSWORD);
        List<Integer> told = IntStream.range(0, 3 * A_MINUTE)
                .mapToObj(i ->
                        ApiClient.stranger(server.address()).get("/api/session").status())
                .toList();
        assertThat(told).contains(429).doesNotContain(500);
        assertThat(IntStream.range(0, A_MINUTE)
                        .map(i -> lead.get("/api/my-studies").status())
                        .boxed())
                .containsOnly(200);
    }

    private ScriptRun doctor(Map<String, String> more) throws IOException {
        Map<String, String> environment = new HashMap<>(database.environment());
        environment.put(
                "MOSSBANK_HOME", Files.createTempDirectory("mossbank-home").toString());
        environment.put("MOSSBANK_PORT", String.valueOf(server.address().getPort()));
        environment.putAll(more);
        return ScriptRun.of(ROOT, environment, "doctor");
    }

    @Test
    public void theDoctorFindsEverythingWellOnThisMachineAlone() throws IOException {
        ScriptRun run = doctor(Map.of());
        assertThat(run.said())
                .contains(
                        "reached, PostgreSQL",
                        "is ready",
                        "demo sign-ins, on this machine alone",
                        "its tables are this release's");
        // The cluster of the tests runs with speed before safety, and the doctor sees it.
        assertThat(run.said()).contains("WRONG    fsync is off");
        assertThat(run.status()).isEqualTo(1);
    }

    @Test
    public void theDoctorSaysWhatIsNotSafeAndWhatToDo() throws IOException {
        String said = doctor(Map.of(
                        "MOSSBANK_BIND", "0.0.0.0",
                        "MOSSBANK_MAIL_HOST", "smtp.harbour.example",
                        "MOSSBANK_MAIL_SECURITY", "NONE",
                        "MOSSBANK_PROVIDERS_ISLAND_ISSUER", "http://id.harbour.example"))
                .said();
        assertThat(said)
                .contains(
                        "WRONG    listens on 0.0.0.0 without TLS",
                        "put a proxy with TLS before it",
                        "WRONG    everybody knows the demo's password",
                        "WRONG    letters with links go to smtp.harbour.example",
                        "WRONG    provider http://id.harbour.example is asked without TLS");
    }

    /** The list that ships is looked through at the end of each check; here is one in which something is found. */
    @Test
    public void aPartWithAFaultThatIsKnownIsFound() throws IOException {
        Path list = Files.writeString(Files.createTempFile("faults", ".csv"), """
                from,name,since,mended,why
                maven,hibernate-core,7.0.0,99.0,planted
                maven,hibernate-core,0,7.0.0,before it
                npm,react-router,0,99.0.0,planted
                npm,react-route,0,99.0.0,another name
                """);
        ScriptRun run = ScriptRun.of(ROOT, Map.of(), "dependencies", list.toString());
        assertThat(run.status()).as(run.said()).isEqualTo(1);
        assertThat(run.said()).contains("hibernate-core", "react-router", "2 parts have faults");
    }

    @Test(dependsOnMethods = "theDoctorFindsEverythingWellOnThisMachineAlone")
    public void theDoctorKnowsADatabaseOfANewerRelease() throws IOException, SQLException {
        try (Connection connection = database.connect();
                Statement sql = connection.createStatement()) {
            sql.execute(
                    "insert into flyway_schema_history (installed_rank, version, description, type, script, installed_by,"
                            + " execution_time, success) values (9999, '9999', 'later', 'SQL', 'later', 'somebody', 1, true)");
        }
        assertThat(doctor(Map.of()).said()).contains("WRONG    it is of a newer release (9999");
        assertThat(doctor(Map.of("MOSSBANK_DB_URL", "jdbc:postgresql://127.0.0.1:1/none"))
                        .said())
                .contains("WRONG    the database cannot be reached");
    }
}
