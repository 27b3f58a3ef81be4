package org.mossbank.server.trial;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mossbank.server.Checks.shell;

import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.awaitility.Awaitility;
import org.mossbank.core.trial.CheckItem;
import org.mossbank.core.trial.TestChange;
import org.mossbank.core.trial.TrialOutcome;
import org.mossbank.server.Bodies;
import org.mossbank.server.ServerTest;
import org.mossbank.server.StudyInTheMaking;
import org.mossbank.server.sandbox.Sandbox;
import org.mossbank.server.shared.Sha256;
import org.mossbank.testkit.DemoRepository;
import org.springframework.beans.factory.annotation.Autowired;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Answers that change a whole repository, which means ill: its tests before and after, in a copy; it stays as it was. */
public class RepositoryTrialTest extends ServerTest {
    /** Three functions; the second is wrong. Dots stand in the file so that what is below lies far enough down. */
    private static final String TIDES = """
            # The tides of a harbour.
            high() { echo 4; }

            low() { echo 3; }

            # The mean of both.
            mean() { echo 2; }
            """;

    private static final String TESTS = """
            . ./lib/tides.sh
            ask() { [ "$($2)" = "$3" ] && echo "ok $1 - $2 is $3" || echo "not ok $1 - $2 is $3"; }
            echo 1..4
            ask 1 high 4
            ask 2 low 1
            ask 3 mean 2
            cmp -s picture.bin <(head -c 4 /dev/zero) && [ "$(wc -c <notes.txt)" = 12 ] && [ ! -e sub/file ] \\
                && echo 'ok 4 - files are as committed' || echo 'not ok 4 - files are as committed'
            """;

    private Path repository;
    private Path marker;
    private String commit;

    @BeforeClass
    public void makeARepositoryThatMeansIll() throws IOException, InterruptedException {
        repository = Files.createDirectories(REPOSITORIES.resolve("tides"));
        marker = REPOSITORIES.resolve("it-ran");
        Files.createDirectories(repository.resolve("lib"));
        Files.writeString(repository.resolve("lib/tides.sh"), TIDES);
        Files.writeString(repository.resolve("tests.sh"), TESTS);
        Files.writeString(repository.resolve("notes.txt"), "$Id$\nplain\n\n");
        Files.write(repository.resolve("picture.bin"), new byte[4]);
        Files.createSymbolicLink(repository.resolve("way-out"), Path.of("/etc/passwd"));
        git("init", "-q", "-b", "main");
        git("add", "-A");
        git("commit", "-q", "-m", "first");
        String first = git("rev-parse", "HEAD").strip();
        // Attributes, a submodule, hooks and settings that run something, each as soon as git itself lays a file out.
        Files.writeString(
                repository.resolve(".gitattributes"), "* filter=evil diff=evil ident export-subst text eol=crlf\n");
        git("add", ".gitattributes");
        git("update-index", "--add", "--cacheinfo", "160000," + first + ",sub");
        Files.writeString(
                repository.resolve(".gitmodules"),
                "[submodule \"sub\"]\n\tpath = sub\n\turl = ext::touch " + marker + "\n");
        git("add", ".gitmodules");
        git("commit", "-q", "-m", "second");
        commit = git("rev-parse", "HEAD").strip();
        String run = "touch " + marker;
        for (String setting : List.of(
                "filter.evil.smudge",
                "filter.evil.clean",
                "filter.evil.process",
                "core.fsmonitor",
                "core.sshCommand",
                "core.pager",
                "pager.cat-file",
                "diff.evil.textconv",
                "uploadpack.packObjectsHook",
                "core.editor")) {
            git("config", setting, run);
        }
        git("config", "filter.evil.required", "true");
        git("config", "alias.cat-file", "!" + run);
        for (String hook : List.of("post-checkout", "post-index-change", "reference-transaction", "pre-commit")) {
            Path file = repository.resolve(".git/hooks/" + hook);
            Files.writeString(file, "#!/bin/sh\n" + run + "\n");
            Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rwxr-xr-x"));
        }
        Files.deleteIfExists(marker);
    }

    private String git(String... arguments) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of(
                "git", "-c", "user.name=Test", "-c", "user.email=test@example.invalid", "-C", repository.toString()));
        command.addAll(List.of(arguments));
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        String output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(process.waitFor()).as(output).isZero();
        return output;
    }

    private Map<String, Object> check(List<String> wanted) {
        Map<String, Object> check = new HashMap<>(shell("true"));
        check.remove("loose");
        check.put("runs", List.of());
        check.put("tests", Map.of("command", "bash tests.sh", "format", "TAP", "reports", ""));
        check.put("repository", Map.of("repository", repository.toString(), "commit", commit, "wanted", wanted));
        return check;
    }

    /** A study whose prompt shows the one file, and one candidate an answer. */
    private StudyInTheMaking study(Map<String, Object> check, String... differences) {
        StudyInTheMaking own = StudyInTheMaking.begunBy(as(LEAD));
        Map<String, Object> content = new HashMap<>(Bodies.prompt("Mend the tides", "The low tide is wrong."));
        content.put("startingFiles", List.of(Map.of("path", "lib/tides.sh", "text", TIDES)));
        String prompt = own.post("/prompts", Map.of("kindId", own.kind("debugging"), "content", content))
                .path("id")
                .asString();
        for (int i = 0; i < differences.length; i++) {
            String text = "Here:\n\n```diff\n" + differences[i] + "```\n";
            own.post("/answers", Bodies.answer(prompt, own.candidate("Model " + i), text));
        }
        own.put("/prompts/" + prompt + "/check", Map.of("revision", 0, "content", check));
        return own;
    }

    /** What came of trying all answers of a study, by candidate. */
    static List<JsonNode> tried(StudyInTheMaking own) {
        own.post("/trials", Map.of("promptIds", List.of(), "repetitions", 1));
        Awaitility.await()
                .atMost(Duration.ofMinutes(2))
                .until(() -> own.get("/trials")
                        .path("trials")
                        .valueStream()
                        .allMatch(t -> t.path("state").asString().equals("ENDED")));
        Map<String, Integer> order = new HashMap<>();
        own.get("/candidates").forEach(c -> order.put(c.path("id").asString(), order.size()));
        Map<String, String> candidateOf = new HashMap<>();
        own.get("/answers")
                .forEach(a -> candidateOf.put(
                        a.path("id").asString(), a.path("candidateId").asString()));
        SortedMap<Integer, JsonNode> results = new TreeMap<>();
        own.get("/trials")
                .path("trials")
                .forEach(t -> results.put(
                        order.get(candidateOf.get(t.path("answerId").asString())),
                        own.get("/trials/" + t.path("id").asString())));
        return List.copyOf(results.values());
    }

    private static Map<String, String> changes(JsonNode result) {
        Map<String, String> changes = new TreeMap<>();
        result.path("items")
                .valueStream()
                .filter(i -> i.has("change"))
                .forEach(i -> changes.put(
                        i.path("name").asString().replaceAll(".* - |.*: ", ""),
                        i.path("change").asString()));
        return changes;
    }

    private static final String MENDS = """
            --- a/lib/tides.sh
            +++ b/lib/tides.sh
            @@ -3,3 +3,3 @@
            \s
            -low() { echo 3; }
            +low() { echo 1; }
            \s
            """;

    private static final String MENDS_AND_BREAKS = """
            --- a/lib/tides.sh
            +++ b/lib/tides.sh
            @@ -3,5 +3,5 @@
            \s
            -low() { echo 3; }
            +low() { echo 1; }
            \s
             # The mean of both.
            -mean() { echo 2; }
            +mean() { echo 3; }
            --- a/notes.txt
            +++ b/notes.txt
            @@ -1,3 +1,3 @@
             $Id$
            -plain
            +other
            \s
            """;

    private static final String ELSEWHERE = """
            --- a/lib/tides.sh
            +++ b/lib/tides.sh
            @@ -1,3 +1,3 @@
             # Another line than there is.
            -low() { echo 3; }
            +low() { echo 1; }
            \s
            """;

    private static final String NOWHERE = """
            --- a/lib/tides.sh
            +++ b/lib/tides.sh
            @@ -4,1 +4,1 @@
            -low() { echo 7; }
            +low() { echo 1; }
            """;

    @Test
    public void eachTestIsToldBeforeAndAfter() throws Exception {
        SortedMap<String, String> before = everything(repository);
        StudyInTheMaking told = study(check(List.of()), MENDS, MENDS_AND_BREAKS, ELSEWHERE, NOWHERE);
        List<JsonNode> results = tried(told);

        assertThat(results.get(0).at("/summary/outcome").asString()).isEqualTo("PASSED");
        assertThat(changes(results.get(0)))
                .isEqualTo(Map.of(
                        "high is 4", "STILL_PASSES",
                        "low is 1", "MENDED",
                        "mean is 2", "STILL_PASSES",
                        "files are as committed", "STILL_PASSES"));
        assertThat(results.get(0).at("/repository/outside").size()).isZero();

        JsonNode breaks = results.get(1);
        assertThat(breaks.at("/summary/outcome").asString()).isEqualTo("FAILED_TESTS");
        assertThat(changes(breaks)).containsEntry("mean is 2", "BROKEN").containsEntry("low is 1", "MENDED");
        assertThat(breaks.at("/repository/changed").valueStream().map(JsonNode::asString))
                .containsExactly("lib/tides.sh", "notes.txt");
        assertThat(breaks.at("/repository/outside").valueStream().map(JsonNode::asString))
                .as("what the prompt does not show")
                .containsExactly("notes.txt");

        assertThat(told.get("/evidence")
                        .path("answers")
                        .valueStream()
                        .map(a -> a.path("broken").asInt()))
                .containsExactlyInAnyOrder(0, 1, 0, 0);
        assertThat(told.get("/trials")
                        .path("trials")
                        .valueStream()
                        .mapToInt(t -> t.path("mended").asInt())
                        .sum())
                .isEqualTo(3);

        JsonNode elsewhere = results.get(2);
        assertThat(elsewhere.at("/summary/outcome").asString()).isEqualTo("PASSED");
        assertThat(elsewhere.at("/repository/fits/0").asString())
                .isEqualTo("lib/tides.sh, part 1 fits 2 lines further down, with 1 line around it passed over.");

        JsonNode nowhere = results.get(3);
        assertThat(nowhere.at("/summary/outcome").asString()).isEqualTo("DID_NOT_APPLY");
        assertThat(nowhere.at("/items/0/why").asString())
                .isEqualTo("lib/tides.sh, part 1 of 1 (from line 4): its lines are not there");

        assertThat(everything(repository)).as("the repository is only read").isEqualTo(before);
        assertThat(marker).as("nothing that it would run was run").doesNotExist();
    }

    /** Size, time and content of each file, its git directory too. */
    private static SortedMap<String, String> everything(Path folder) throws IOException {
        SortedMap<String, String> all = new TreeMap<>();
        try (Stream<Path> files = Files.walk(folder)) {
            for (Path file : (Iterable<Path>) files.filter(Files::isRegularFile)::iterator) {
                all.put(
                        folder.relativize(file).toString(),
                        Files.getLastModifiedTime(file) + " " + Sha256.hex(Files.readAllBytes(file)));
            }
        }
        return all;
    }

    /** Something listens there: outside a sandbox it would be reached. */
    private static int databasePort() {
        return URI.create(System.getenv("MOSSBANK_TEST_DB_URL").substring("jdbc:".length()))
                .getPort();
    }

    /** What a build begins ends with it; it reaches neither the repository nor a network, and nothing of it stays. */
    @Test
    public void aBuildThatStartsProgramsReachesNothing() throws IOException {
        SortedMap<String, String> before = everything(repository);
        Map<String, Object> check = check(List.of("a test"));
        check.put(
                "build",
                ("touch %1$s; for f in %2$s/lib/tides.sh; do echo stray >>$f; done; git -C %2$s gc;"
                                + " bash -c 'exec 3<>/dev/tcp/127.0.0.1/%3$s' && echo reached;"
                                + " setsid sh -c 'while :; do sleep 1; touch %1$s; done' & (sleep 600 &) ; true")
                        .formatted(marker, repository, databasePort()));
        JsonNode result = tried(study(check, MENDS)).get(0);

        assertThat(result.at("/summary/outcome").asString()).isEqualTo("PASSED");
        assertThat(result.path("log").asString()).doesNotContain("reached");
        assertThat(everything(repository)).isEqualTo(before);
        assertThat(marker).doesNotExist();
        assertThat(ProcessHandle.allProcesses()
                        .filter(p -> p.info()
                                .arguments()
                                .map(a -> String.join(" ", a).contains(marker.toString()))
                                .orElse(false)))
                .as("nothing that it began is left")
                .isEmpty();
    }

    /** A repository may have failed before for other reasons. */
    @Test
    public void onlyWhatTheCheckNamesMustBeMended() {
        String breaksNothing = """
                --- a/lib/tides.sh
                +++ b/lib/tides.sh
                @@ -1,1 +1,1 @@
                -# The tides of a harbour.
                +# Tides.
                """;
        JsonNode strict = tried(study(check(List.of()), breaksNothing)).get(0);
        assertThat(strict.at("/summary/outcome").asString()).isEqualTo("FAILED_TESTS");
        assertThat(changes(strict)).containsEntry("low is 1", "STILL_FAILS");
        String name = strict.path("items")
                .valueStream()
                .map(i -> i.path("name").asString())
                .filter(n -> n.endsWith("mean is 2"))
                .findFirst()
                .orElseThrow();
        JsonNode lenient = tried(study(check(List.of(name)), breaksNothing)).get(0);
        assertThat(lenient.at("/summary/outcome").asString()).isEqualTo("PASSED");
        assertThat(changes(lenient)).containsEntry("low is 1", "MAY_FAIL");
    }

    /** No answer is told not to apply because of it. */
    @Test
    public void aRepositoryThatMayNotBeReadIsRefused() throws IOException {
        StudyInTheMaking own = study(check(List.of()), MENDS);
        String prompt = own.get("/prompts").at("/0/id").asString();
        Map<String, Object> elsewhere = check(List.of());
        Path outside = Files.createTempDirectory("elsewhere");
        elsewhere.put("repository", Map.of("repository", outside.toString(), "commit", commit, "wanted", List.of()));
        var tried = own.lead.post(
                own.path + "/prompts/" + prompt + "/check/try",
                Map.of("subject", "STARTING_CODE", "content", elsewhere));
        assertThat(tried.problem()).isEqualTo("starting-code-refused");

        own.put("/prompts/" + prompt + "/check", Map.of("revision", 1, "content", elsewhere));
        assertThat(own.lead
                        .post(own.path + "/trials", Map.of("promptIds", List.of(), "repetitions", 1))
                        .problem())
                .isEqualTo("starting-code-refused");
    }

    @Test
    public void ofARepositoryTheTestsAreAsked() {
        StudyInTheMaking own = study(check(List.of()), MENDS);
        Map<String, Object> without = check(List.of());
        without.remove("tests");
        without.put("build", "true");
        assertThat(own.lead
                        .put(
                                own.path + "/prompts/"
                                        + own.get("/prompts").at("/0/id").asString() + "/check",
                                Map.of("revision", 1, "content", without))
                        .problem())
                .isEqualTo("invalid-request");
    }

    @Autowired
    private TrialRunner runner;

    /** One answer of the demo takes away what an export looks for, and another what others call. */
    @Test
    public void anAnswerOfTheDemoBreaksAnotherTest() throws Exception {
        DemoRepository.make(ROOT, REPOSITORIES);
        Path demo = ROOT.resolve("demo-next");
        CheckContent check = JsonMapper.shared()
                .readValue(Files.readString(demo.resolve("checks/refactor-mooring-fees.json")), CheckContent.class);
        assertThat(runner.unanswered(check, Map.of(), new Sandbox.Stop())
                        .result()
                        .summary()
                        .outcome())
                .isEqualTo(TrialOutcome.PASSED);
        Map<String, TrialResult> came = new TreeMap<>();
        for (String answer : List.of("brindle", "quillwort", "tansy-2")) {
            String text = Files.readString(demo.resolve("answers/refactor-mooring-fees-" + answer + ".md"));
            came.put(
                    answer,
                    runner.tried(check, Map.of(), text, new Sandbox.Stop()).result());
        }
        assertThat(came)
                .extractingFromEntries(
                        e -> e.getKey() + " " + e.getValue().summary().outcome())
                .containsExactly("brindle FAILED_TESTS", "quillwort DID_NOT_COMPILE", "tansy-2 DID_NOT_APPLY");
        assertThat(broken(came.get("brindle")))
                .singleElement()
                .asString()
                .contains("LedgerExportTest: writesWhatIsKnownOfALine");
    }

    private static List<String> broken(TrialResult result) {
        return result.items().stream()
                .filter(i -> i.change() == TestChange.BROKEN)
                .map(CheckItem::name)
                .toList();
    }

    /** The check and what came of it go along; what is tried again needs the repository where it came to. */
    @Test
    public void whatWasToldGoesIntoAnArchiveAndOutOfIt() {
        StudyInTheMaking own = study(check(List.of("a test")), MENDS_AND_BREAKS);
        JsonNode before = tried(own).get(0);
        byte[] archive = own.lead.get(own.path + "/archive").raw().body();
        String other = "/api/studies/"
                + own.lead
                        .upload("/api/studies/archive?again=true", archive)
                        .json()
                        .path("studyId")
                        .asString();
        assertThat(own.lead.get(other + "/checks").json().at("/0/content"))
                .isEqualTo(own.get("/checks").at("/0/content"));
        String trial = own.lead.get(other + "/trials").json().at("/trials/0/id").asString();
        JsonNode after = own.lead.get(other + "/trials/" + trial).json();
        assertThat(after.path("repository")).isEqualTo(before.path("repository"));
        assertThat(changes(after)).isEqualTo(changes(before)).containsValue("BROKEN");
    }
}
