package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.awaitility.Awaitility;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.TestDatabase;
import org.testng.SkipException;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What is installed elsewhere: made here, and run where there is a Java runtime and an address of a database, and nothing else. */
public class PackageTest {
    private static final Path ROOT = Path.of(System.getProperty("mossbank.root"));
    private static final Duration PATIENCE = Duration.ofMinutes(5);
    /** What a server without tools does not have. */
    private static final Set<String> NOT_THERE = Set.of(
            "mvn",
            "npm",
            "npx",
            "node",
            "javac",
            "jar",
            "git",
            "bwrap",
            "chromium",
            "chromedriver",
            "psql",
            "pg_dump",
            "curl",
            "python3",
            "gcc");

    private static final int NO_CONTAINER = 3;

    private Path made;
    private Path installed;
    private Path tools;
    private Process server;

    @BeforeClass
    public void make() throws IOException, InterruptedException {
        ScriptRun run = ScriptRun.of(ROOT, Map.of(), "package");
        assertThat(run.status()).as(run.said()).isZero();
        made = ROOT.resolve("target/release");
        Path folder = Files.createTempDirectory("installed");
        assertThat(end("tar", "-C", folder.toString(), "-xzf", one(".tar.gz").toString()))
                .isZero();
        try (Stream<Path> trees = Files.list(folder)) {
            installed = trees.findFirst().orElseThrow();
        }
        tools = Files.createTempDirectory("tools");
        for (String bin : List.of("/usr/bin", "/bin")) {
            try (Stream<Path> programs = Files.list(Path.of(bin))) {
                for (Path program : programs.toList()) {
                    Path there = tools.resolve(program.getFileName());
                    if (!NOT_THERE.contains(program.getFileName().toString()) && !Files.exists(there)) {
                        Files.createSymbolicLink(there, program);
                    }
                }
            }
        }
    }

    @AfterClass(alwaysRun = true)
    public void stop() {
        if (server != null) {
            server.destroy();
            server.onExit().join();
        }
    }

    private Path one(String end) throws IOException {
        try (Stream<Path> files = Files.list(made)) {
            return files.filter(f -> f.toString().endsWith(end)).findFirst().orElseThrow();
        }
    }

    private static int end(String... command) throws IOException, InterruptedException {
        return new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start()
                .waitFor();
    }

    private Map<String, String> environment() {
        Map<String, String> environment = new HashMap<>();
        environment.put("PATH", tools.toString());
        environment.put("MOSSBANK_ROOT", installed.toString());
        return environment;
    }

    @Test
    public void runsWithARuntimeAndADatabaseAlone() throws IOException {
        TestDatabase database = TestDatabase.create();
        int port;
        try (ServerSocket free = new ServerSocket(0)) {
            port = free.getLocalPort();
        }
        Path settings = Files.writeString(
                Files.createTempFile("mossbank", ".yaml"),
                "port: " + port + "\npath: /here\ndb-url: " + database.url() + "\ndb-user: " + database.user()
                        + "\ndb-password-file: "
                        + Files.writeString(Files.createTempFile("password", ""), database.password())
                        + "\nfirst-lead-token: begin-here-and-now\nheap: 700m\n");
        ProcessBuilder builder = new ProcessBuilder(
                        installed.resolve("mossbank").toString(), "run")
                .redirectErrorStream(true)
                .redirectOutput(ROOT.resolve("e2e/target/installed.log").toFile());
        builder.environment().clear();
        builder.environment().putAll(environment());
        builder.environment().put("MOSSBANK_SETTINGS", settings.toString());
        server = builder.start();
        URI address = URI.create("http://127.0.0.1:" + port + "/here");
        Awaitility.await()
                .atMost(PATIENCE)
                .until(() -> !server.isAlive() || answers(URI.create(address + "/actuator/health/readiness")));
        assertThat(server.isAlive())
                .as(() -> log(ROOT.resolve("e2e/target/installed.log")))
                .isTrue();

        ApiClient lead = ApiClient.nobody(address);
        assertThat(lead.get("/sign-in").body()).contains("content=\"/here\"");
        assertThat(lead.post(
                                "/api/links/use",
                                Map.of(
                                        "token",
                                        "begin-here-and-now",
                                        "displayName",
                                        "First",
                                        "password",
                                        "reed mace and sedge"))
                        .status())
                .isEqualTo(200);
        String study = lead.post("/api/studies", Map.of("title", "Elsewhere"))
                .json()
                .path("id")
                .asString();
        // Tools of trials are found whatever the path says, as the sandbox has one of its own: what is missing is told
        // there is.
        assertThat(lead.get("/api/studies/" + study + "/toolchains").status()).isEqualTo(200);
        assertThat(Files.getPosixFilePermissions(installed.resolve("app/mossbank.jar"))
                        .toString())
                .doesNotContain("GROUP_WRITE", "OTHERS_WRITE");
    }

    private static String log(Path file) {
        try {
            return Files.readString(file);
        } catch (IOException e) {
            return e.toString();
        }
    }

    private static boolean answers(URI address) throws InterruptedException {
        try {
            return HttpClient.newHttpClient()
                            .send(HttpRequest.newBuilder(address).build(), HttpResponse.BodyHandlers.discarding())
                            .statusCode()
                    == 200;
        } catch (IOException e) {
            return false;
        }
    }

    @Test
    public void worksOutAgreementWithoutABuild() throws IOException {
        Path table = Files.writeString(
                Files.createTempFile("table", ".csv"), "unit,rater,value\na,x,1\na,y,1\nb,x,2\nb,y,3\nc,x,0\nc,y,0\n");
        ScriptRun run = ScriptRun.of(installed, environment(), "agreement", table.toString());
        assertThat(run.status()).as(run.said()).isZero();
        assertThat(JsonMapper.shared().readTree(run.said()).isObject()).isTrue();
        assertThat(ScriptRun.of(installed, environment(), "check").said()).contains("this needs the source");
    }

    @Test
    public void checksumsAreSignedAndOneThatWasChangedIsSeen() throws IOException, InterruptedException {
        Path sums = made.resolve("SHA256SUMS");
        assertThat(verify(sums)).isZero();
        assertThat(Files.readString(sums)).contains(".tar.gz", ".deb", "server.cdx.json", "client.cdx.json");
        assertThat(new ProcessBuilder("sha256sum", "-c", "SHA256SUMS")
                        .directory(made.toFile())
                        .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                        .start()
                        .waitFor())
                .isZero();
        Path changed = Files.writeString(Files.createTempFile("sums", ""), Files.readString(sums) + "x");
        assertThat(verify(changed)).isNotZero();
    }

    private int verify(Path sums) throws IOException, InterruptedException {
        return end(
                "openssl",
                "pkeyutl",
                "-verify",
                "-rawin",
                "-pubin",
                "-inkey",
                made.resolve("mossbank-release.pem").toString(),
                "-in",
                sums.toString(),
                "-sigfile",
                made.resolve("SHA256SUMS.sig").toString());
    }

    @Test
    public void listsOfPartsNameWhatServerAndClientAreMadeOf() {
        for (String[] list :
                new String[][] {{"server.cdx.json", "hibernate-core"}, {"client.cdx.json", "react-router"}}) {
            JsonNode parts = JsonMapper.shared().readTree(made.resolve(list[0]).toFile());
            assertThat(parts.path("bomFormat").asString()).isEqualTo("CycloneDX");
            assertThat(parts.path("components")
                            .valueStream()
                            .map(c -> c.path("name").asString()))
                    .hasSizeGreaterThan(100)
                    .contains(list[1]);
        }
    }

    /** What an administrator reads, line by line, under a systemd of its own and without any network. */
    @Test
    public void theGuideLeadsFromNothingToBehindTlsOnACleanMachine() throws IOException, InterruptedException {
        Path said = Files.createTempFile("clean-machine", ".log");
        Process run = new ProcessBuilder(
                        "bash", ROOT.resolve("scripts/clean-machine.sh").toString(), made.toString())
                .redirectErrorStream(true)
                .redirectOutput(said.toFile())
                .start();
        assertThat(run.waitFor(20, TimeUnit.MINUTES)).isTrue();
        String all = Files.readString(said);
        if (run.exitValue() == NO_CONTAINER) {
            throw new SkipException("no machine of its own can be started here: " + all);
        }
        assertThat(run.exitValue()).as(all).isZero();
        assertThat(all)
                .contains("Signature Verified Successfully", "service: active, as mossbank", "Nothing is wrong.")
                .containsPattern("Overall exposure level for mossbank.service: [0-4]\\.\\d OK")
                .contains("come in: 200", "cookies: 1 session", "after a kill: 200")
                .containsPattern("trials: .*\"key\":\"java\"")
                .doesNotContain("\"missing\"");
    }

    /** The unit that ships, as systemd itself judges it; below 5.0 it calls a service "OK". */
    @Test
    public void theServiceIsShutInAndRunsAsAUserOfItsOwn() throws IOException, InterruptedException {
        Path unit = ROOT.resolve("packaging/mossbank.service");
        assertThat(end("systemd-analyze", "security", "--offline=yes", "--threshold=49", unit.toString()))
                .isZero();
        Path tree = Files.createTempDirectory("debian");
        assertThat(end("dpkg-deb", "-R", one(".deb").toString(), tree.toString()))
                .isZero();
        assertThat(Files.readString(tree.resolve("lib/systemd/system/mossbank.service")))
                .isEqualTo(Files.readString(unit));
        assertThat(Files.readString(unit))
                .contains("User=mossbank", "NoNewPrivileges=yes")
                .as("each sandbox has a name of its own, which the first would forbid")
                .doesNotContain("ProtectHostname")
                .containsPattern("SystemCallFilter=.* sethostname");
        assertThat(tree.resolve("usr/bin/mossbank")).isSymbolicLink();
        assertThat(Files.readString(tree.resolve("DEBIAN/conffiles"))).contains("/etc/mossbank/mossbank.yaml");
        assertThat(Files.readString(tree.resolve("DEBIAN/postinst"))).contains("adduser --system");
    }
}
