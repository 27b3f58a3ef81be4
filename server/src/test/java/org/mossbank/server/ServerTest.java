package org.mossbank.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import org.mossbank.standin.mail.MailStandIn;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.ProviderProcess;
import org.mossbank.testkit.SheetWork;
import org.mossbank.testkit.TestDatabase;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;
import org.springframework.test.context.testng.AbstractTestNGSpringContextTests;
import org.testng.annotations.AfterSuite;
import tools.jackson.databind.JsonNode;

/** The whole server on a real database, in demo mode, one for all tests; each test brings in a study of its own. */
@SpringBootTest(
        classes = {MossbankApplication.class, OneConnection.class},
        webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT)
public abstract class ServerTest extends AbstractTestNGSpringContextTests {
    public static final Path ROOT = Path.of("..").toAbsolutePath().normalize();
    protected static final String PASSWORD = "tide and lantern";
    protected static final String LEAD = "orla";
    protected static final String RATER = "bram";
    /** A rater of the demo, in no study that tests bring in. */
    protected static final String OUTSIDER = "tove";

    /** What programs bring that read measurements. */
    protected static final String METRICS_TOKEN = "a gauge in the mud";

    /** What sources are asked with. */
    protected static final String SECRET = "heron under the jetty";

    protected static final TestDatabase DATABASE = TestDatabase.create();
    /** Where the server may read repositories, as its administrator would set it. */
    protected static final Path REPOSITORIES = temporaryFolder();

    /** Where the provider of sign-ins listens, once a test has started it. */
    protected static final int PROVIDER_PORT = ProviderProcess.freePort();

    /** Takes what the server sends. */
    protected static final MailStandIn MAIL = mail();

    private static MailStandIn mail() {
        try {
            return MailStandIn.start(0, null);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static Path temporaryFolder() {
        try {
            return Files.createTempDirectory("repositories").toRealPath();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static final Map<String, ApiClient> SIGNED_IN = new ConcurrentHashMap<>();

    @LocalServerPort
    private int port;

    @DynamicPropertySource
    public static void settings(DynamicPropertyRegistry registry) {
        registry.add("spring.datasource.url", DATABASE::url);
        registry.add("spring.datasource.username", DATABASE::user);
        registry.add("spring.datasource.password", DATABASE::password);
        // A processor that many tests share may stand still for longer than a user should wait.
        registry.add("mossbank.connections.patience-ms", () -> "15000");
        // All tests are a few people at one address, and never pause to think.
        registry.add("mossbank.requests.account", () -> "1000000");
        registry.add("mossbank.requests.address", () -> "1000000");
        // One session serves all tests, which last longer than what a person has shown is good for.
        registry.add("mossbank.sessions.proof", () -> "1d");
        // What goes on beside a test would be counted with its statements.
        registry.add("mossbank.figures.ahead", () -> "false");
        registry.add("mossbank.proxies", () -> "127.0.0.1");
        registry.add("mossbank.git.roots", REPOSITORIES::toString);
        registry.add("mossbank.allowed.sources", () -> "127.0.0.1");
        registry.add("mossbank.secrets.standin", () -> SECRET);
        registry.add("mossbank.hosts.standin", () -> "127.0.0.1");
        registry.add("mossbank.providers.harbour.name", () -> "Harbour office");
        registry.add("mossbank.providers.harbour.issuer", () -> "http://127.0.0.1:" + PROVIDER_PORT);
        registry.add("mossbank.providers.harbour.client", () -> "mossbank");
        registry.add("mossbank.providers.harbour.secret", () -> ProviderProcess.SECRET);
        registry.add("mossbank.providers.harbour.leads", () -> "model-leads");
        registry.add("mossbank.mail.host", () -> "127.0.0.1");
        registry.add("mossbank.mail.port", MAIL::port);
        registry.add("mossbank.mail.security", () -> "NONE");
        registry.add("mossbank.mail.from", () -> "mossbank@harbour.example");
        registry.add("mossbank.mail.address", () -> "https://mossbank.example");
        registry.add("mossbank.metrics.token", () -> METRICS_TOKEN);
        // One that nobody can reach.
        registry.add("mossbank.providers.island.name", () -> "The island");
        registry.add("mossbank.providers.island.issuer", () -> "http://127.0.0.1:1");
        registry.add("mossbank.providers.island.client", () -> "mossbank");
        registry.add("mossbank.providers.island.secret", () -> "nobody hears it");
        registry.add("mossbank.demo.enabled", () -> "true");
        registry.add("mossbank.demo.folder", () -> ROOT.resolve("demo").toString());
    }

    /** What came back as a refusal in any test is what the description says of the operation. */
    @AfterSuite(alwaysRun = true)
    public void everyRefusalIsDescribed() throws IOException {
        RefusalsDescribed.check(ROOT);
    }

    protected URI address() {
        return URI.create("http://127.0.0.1:" + port);
    }

    protected ApiClient nobody() {
        return ApiClient.nobody(address());
    }

    /** Somebody signed in, one session for all tests: checking a password is slow on purpose. */
    protected ApiClient as(String name) {
        return SIGNED_IN.computeIfAbsent(address() + name, key -> freshly(name));
    }

    /** Somebody in a session of their own, for a test that ends it. */
    protected ApiClient freshly(String name) {
        return ApiClient.signedIn(address(), name, PASSWORD);
    }

    /** Somebody new, whom the administrator made an account, in a session of their own. */
    protected ApiClient newcomer(String signInName, boolean mayBringIn) {
        JsonNode made = as(LEAD).post(
                        "/api/accounts",
                        Map.of("signInName", signInName, "name", signInName + " Newcomer", "mayBringIn", mayBringIn))
                .json();
        return enters(made.at("/invitation/token").asString());
    }

    /** Uses a one-time link. */
    protected ApiClient enters(String token) {
        ApiClient client = nobody();
        Map<String, String> use = Map.of("token", token, "displayName", "Somebody New", "password", PASSWORD);
        ApiClient.Response response = client.post("/api/links/use", use);
        assertThat(response.status()).as(response.body()).isEqualTo(200);
        return client;
    }

    /** The id of whoever is signed in. */
    protected static String idOf(ApiClient person) {
        return person.get("/api/account").json().at("/account/id").asString();
    }

    /** The demo study, as its lead sees it. */
    protected String demoStudy() {
        return as(LEAD).get("/api/my-studies?order=OLDEST")
                .json()
                .at("/studies/0/id")
                .asString();
    }

    /** A folder's files by path. */
    protected static Map<String, byte[]> files(Path folder) {
        Map<String, byte[]> files = new TreeMap<>();
        try (Stream<Path> paths = Files.walk(folder)) {
            for (Path path : paths.filter(Files::isRegularFile).toList()) {
                files.put(folder.relativize(path).toString(), Files.readAllBytes(path));
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return files;
    }

    protected static Map<String, byte[]> byHand() {
        return files(Path.of("src/test/resources/by-hand"));
    }

    protected static byte[] zip(Map<String, byte[]> files) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out, StandardCharsets.UTF_8)) {
            for (Map.Entry<String, byte[]> file : files.entrySet()) {
                zip.putNextEntry(new ZipEntry(file.getKey()));
                zip.write(file.getValue());
                zip.closeEntry();
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    /** The hand-written study, graded by bram and juri, changed as the test wants, brought in by the demo's lead. */
    protected String bringIn(Consumer<Map<String, byte[]>> change) {
        Map<String, byte[]> files = byHand();
        change.accept(files);
        ApiClient.Response response = as(LEAD).upload("/api/studies/archive?again=true", zip(files));
        if (response.status() != 200) {
            throw new AssertionError("archive refused: " + response.body());
        }
        return response.json().path("studyId").asString();
    }

    protected String bringIn() {
        return bringIn(files -> {});
    }

    /** The demo study once more, for a test that changes it. */
    protected String copyOfTheDemo() {
        return as(LEAD).upload("/api/studies/archive?again=true", export(as(LEAD), demoStudy()))
                .json()
                .path("studyId")
                .asString();
    }

    protected static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    /** A rater's sheets in one study, in their order. */
    protected static List<JsonNode> sheets(ApiClient rater, String study) {
        List<JsonNode> found = List.of();
        boolean more = true;
        for (int earlier = 0; found.isEmpty() && more; earlier++) {
            List<JsonNode> all = StudyInTheMaking.list(
                    rater.get("/api/sheets?earlier=" + earlier).json());
            found = all.stream()
                    .filter(s -> s.path("studyId").asString().equals(study))
                    .toList();
            more = !all.isEmpty();
        }
        return found;
    }

    /** Grades every cell of a sheet at the level and sends it in. */
    protected static void gradeAndSend(ApiClient rater, String sheet, int level) {
        SheetWork.gradeAndSend(rater, sheet, level);
    }

    protected static void explain(ApiClient rater, String sheet, JsonNode answer) {
        SheetWork.explain(rater, sheet, answer);
    }

    /** An archive's files as texts, by path. */
    protected static Map<String, String> unzip(byte[] archive) {
        Map<String, String> texts = new TreeMap<>();
        unzipped(archive).forEach((path, bytes) -> texts.put(path, new String(bytes, StandardCharsets.UTF_8)));
        return texts;
    }

    /** An archive's files by path. */
    protected static Map<String, byte[]> unzipped(byte[] archive) {
        Map<String, byte[]> files = new TreeMap<>();
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(archive))) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                files.put(entry.getName(), zip.readAllBytes());
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return files;
    }

    /** Of acts, or of a page of what was done, which has the last first. */
    protected static List<String> sorts(JsonNode page) {
        return (page.has("events") ? page.path("events") : page)
                .values().stream().map(e -> e.path("sort").asString()).toList();
    }

    protected static List<String> writtenDown(ApiClient reader, String events) {
        return sorts(reader.get(events).json());
    }

    /** What somebody did. */
    protected List<String> actsOf(String signInName) {
        return writtenDown(as(LEAD), "/api/audit-events?who=" + signInName);
    }

    protected static byte[] export(ApiClient lead, String study) {
        ApiClient.Response response = lead.get("/api/studies/" + study + "/archive");
        assertThat(response.status()).isEqualTo(200);
        return response.raw().body();
    }

    /** A change at the desk, under an id of its own. */
    protected static Map<String, Object> change(long baseRevision, Map<String, ?> value) {
        return SheetWork.change(baseRevision, value);
    }

    /** The hand-written study with one more table. */
    public static Consumer<Map<String, byte[]>> withTable(String name, String text) {
        return files -> {
            String listed = new String(files.get("datapackage.json"), StandardCharsets.UTF_8);
            String entry =
                    "{ \"name\": \"" + name + "\", \"path\": \"" + name + ".csv\" },\n    { \"name\": \"raters\"";
            files.put("datapackage.json", bytes(listed.replace("{ \"name\": \"raters\"", entry)));
            files.put(name + ".csv", bytes(text));
        };
    }

    protected static String gradePath(String sheet, JsonNode answer, JsonNode grade) {
        return SheetWork.gradePath(sheet, answer, grade.path("criterionId").asString());
    }

    /** What the rule yields: grading ends for it. */
    protected static JsonNode recommendation(ApiClient lead, String study) {
        lead.post("/api/studies/" + study + "/round/close", Map.of("reason", "Enough is graded."));
        return lead.get("/api/studies/" + study + "/recommendation").json();
    }

    protected static Map<String, Object> grade(long baseRevision, int level) {
        return SheetWork.grade(baseRevision, level);
    }
}
