package org.mossbank.server.startingcode;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.mossbank.server.ServerTest;
import org.mossbank.server.StudyInTheMaking;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Starting code from real git repositories and from zips: what is allowed is read, everything else is refused. */
public class StartingCodeTest extends ServerTest {
    private Path allowed;
    private Path forbidden;
    private String commit;

    @BeforeClass
    public void makeRepositories() throws IOException, InterruptedException {
        allowed = repository(REPOSITORIES.resolve("buoys"));
        forbidden = repository(Files.createTempDirectory("elsewhere").toRealPath());
        commit = git(allowed, "rev-parse", "HEAD").strip();
    }

    private static Path repository(Path folder) throws IOException, InterruptedException {
        Files.createDirectories(folder.resolve("src"));
        Files.writeString(folder.resolve("src/Buoy.java"), "record Buoy(String name) {}\n");
        Files.writeString(folder.resolve("Größe und Maß.txt"), "ä\n");
        Files.write(folder.resolve("picture.png"), new byte[] {(byte) 0x89, 0, 1, 2});
        Files.createSymbolicLink(folder.resolve("link"), Path.of("/etc/passwd"));
        git(folder, "init", "-q", "-b", "main");
        git(folder, "add", "-A");
        git(folder, "commit", "-q", "-m", "first");
        git(folder, "tag", "v1");
        Files.writeString(folder.resolve("src/Buoy.java"), "record Buoy(String name, int priority) {}\n");
        git(folder, "commit", "-q", "-a", "-m", "second");
        return folder;
    }

    private static String git(Path folder, String... arguments) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of(
                "git", "-c", "user.name=Test", "-c", "user.email=test@example.invalid", "-C", folder.toString()));
        command.addAll(List.of(arguments));
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        String output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(process.waitFor()).as(output).isZero();
        return output;
    }

    private StudyInTheMaking study() {
        return StudyInTheMaking.begunBy(as(LEAD));
    }

    private static ApiClient.Response list(StudyInTheMaking study, String repository, String revision) {
        return study.lead.post(
                study.path + "/starting-code/git/listing", Map.of("repository", repository, "commit", revision));
    }

    private static ApiClient.Response read(
            StudyInTheMaking study, String repository, String revision, String... paths) {
        return study.lead.post(
                study.path + "/starting-code/git",
                Map.of("repository", repository, "commit", revision, "paths", List.of(paths)));
    }

    @Test
    public void filesAreListedAndReadAtACommit() {
        StudyInTheMaking study = study();
        JsonNode listing = StudyInTheMaking.ok(list(study, allowed.toString(), "v1"));
        assertThat(listing.path("files").values())
                .as("links are left out")
                .extracting(f -> f.path("path").asString())
                .containsExactlyInAnyOrder("src/Buoy.java", "Größe und Maß.txt", "picture.png");
        JsonNode old = StudyInTheMaking.ok(read(study, allowed.toString(), "v1", "src/Buoy.java", "picture.png"));
        assertThat(old.at("/code/files/0/text").asString()).isEqualTo("record Buoy(String name) {}\n");
        assertThat(old.at("/code/leftOut/0").asString()).contains("picture.png");
        assertThat(old.at("/origin/commit").asString()).hasSize(40).isNotEqualTo(commit);
        JsonNode now = StudyInTheMaking.ok(read(study, allowed.toString(), "main", "src/Buoy.java"));
        assertThat(now.at("/code/files/0/text").asString()).contains("priority");
        assertThat(now.at("/origin/commit").asString()).isEqualTo(commit);
    }

    @Test
    public void aRepositoryIsCalledByItsNameBelowAnAllowedFolderToo() {
        assertThat(StudyInTheMaking.ok(list(study(), "buoys", "main"))
                        .path("commit")
                        .asString())
                .isEqualTo(commit);
    }

    @Test
    public void aPathOutsideWhatTheAdministratorAllowsIsRefusedLikeOneThatIsNotThere() throws IOException {
        StudyInTheMaking study = study();
        Path link = Files.createSymbolicLink(REPOSITORIES.resolve("way-out"), forbidden);
        List<String> bodies = new ArrayList<>();
        for (String path : List.of(
                forbidden.toString(),
                link.toString(),
                REPOSITORIES + "/buoys/../../" + forbidden.getFileName(),
                REPOSITORIES + "/not-there",
                "/",
                "../" + forbidden.getFileName(),
                "boys")) {
            ApiClient.Response response = list(study, path, "main");
            assertThat(response.problem()).as(path).isEqualTo("starting-code-refused");
            if (path.startsWith("/")) {
                bodies.add(response.json().at("/errors/0/message").asString());
            }
        }
        assertThat(bodies).as("nothing is learned of the server's disk").containsOnly(bodies.get(0));
    }

    @Test
    public void aRepositoryThatBorrowsFromElsewhereIsRefused() throws IOException {
        StudyInTheMaking study = study();
        Path pointer = Files.createDirectories(REPOSITORIES.resolve("pointer"));
        Files.writeString(pointer.resolve(".git"), "gitdir: " + forbidden.resolve(".git") + "\n");
        assertThat(list(study, pointer.toString(), "main").problem()).isEqualTo("starting-code-refused");

        Path borrower = REPOSITORIES.resolve("borrower");
        try {
            git(REPOSITORIES, "clone", "-q", "--shared", forbidden.toString(), borrower.toString());
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
        assertThat(list(study, borrower.toString(), "main").problem()).isEqualTo("starting-code-refused");

        Path linked = Files.createDirectories(REPOSITORIES.resolve("linked"));
        Files.createSymbolicLink(linked.resolve(".git"), forbidden.resolve(".git"));
        assertThat(list(study, linked.toString(), "main").problem()).isEqualTo("starting-code-refused");
    }

    /** A borrows from B, which lies where reading is allowed, and B borrows from where it is not. */
    @Test
    public void aRepositoryThatBorrowsFromABorrowerIsRefused() throws IOException, InterruptedException {
        Path between = REPOSITORIES.resolve("between");
        git(REPOSITORIES, "clone", "-q", "--shared", forbidden.toString(), between.toString());
        Path last = REPOSITORIES.resolve("last");
        git(REPOSITORIES, "clone", "-q", "--shared", between.toString(), last.toString());
        assertThat(list(study(), last.toString(), "main").problem()).isEqualTo("starting-code-refused");
    }

    @Test
    public void aLinkAmongTheObjectsIsRefused() throws IOException, InterruptedException {
        Path linking = REPOSITORIES.resolve("linking");
        git(REPOSITORIES, "init", "-q", linking.toString());
        Path objects = linking.resolve(".git/objects");
        try (var folders = Files.list(forbidden.resolve(".git/objects"))) {
            for (Path folder : folders.toList()) {
                Path here = objects.resolve(folder.getFileName());
                Files.deleteIfExists(here);
                Files.createSymbolicLink(here, folder);
            }
        }
        Files.writeString(
                linking.resolve(".git/refs/heads/main"), Files.readString(forbidden.resolve(".git/refs/heads/main")));
        assertThat(list(study(), linking.toString(), "main").problem()).isEqualTo("starting-code-refused");
    }

    @Test
    public void aRepositoryThatLacksAnObjectIsRefused() throws IOException, InterruptedException {
        Path lacking = REPOSITORIES.resolve("lacking");
        git(REPOSITORIES, "init", "-q", "-b", "main", lacking.toString());
        Files.writeString(lacking.resolve("a.txt"), "soon gone");
        git(lacking, "add", "-A");
        git(lacking, "commit", "-q", "-m", "one");
        try (var objects = Files.walk(lacking.resolve(".git/objects"))) {
            for (Path object : objects.filter(Files::isRegularFile).toList()) {
                byte[] bytes = new java.util.zip.InflaterInputStream(Files.newInputStream(object)).readAllBytes();
                if (new String(bytes, java.nio.charset.StandardCharsets.UTF_8).startsWith("blob")) {
                    Files.delete(object);
                }
            }
        }
        ApiClient.Response refused = list(study(), lacking.toString(), "main");
        assertThat(refused.problem()).isEqualTo("starting-code-refused");
        assertThat(refused.body()).contains("lacks an object");
    }

    @DataProvider
    public static Object[][] badRevisions() {
        return new Object[][] {
            {"--upload-pack=touch /tmp/broken"},
            {"-v"},
            {"main..v1"},
            {"main^{tree}"},
            {"main:src"},
            {"$(id)"},
            {"no-such-branch"},
            {"main\nHEAD"},
        };
    }

    @Test(dataProvider = "badRevisions")
    public void whatIsNoNameOfACommitIsRefused(String revision) {
        ApiClient.Response response = list(study(), allowed.toString(), revision);
        assertThat(response.problem()).isEqualTo("starting-code-refused");
        assertThat(response.json().at("/errors/0/field").asString()).isEqualTo("commit");
    }

    @Test
    public void pathsThatAreNotAtTheCommitAreRefused() {
        StudyInTheMaking study = study();
        for (String path : List.of("src/None.java", "../secret", "link", "src", ":(glob)**")) {
            ApiClient.Response response = read(study, allowed.toString(), "main", path);
            assertThat(response.problem()).as(path).isEqualTo("starting-code-refused");
            assertThat(response.json().at("/errors/0/field").asString()).isEqualTo("paths");
        }
    }

    /** Hooks and settings of the repository take no part in reading it. */
    @Test
    public void aRepositoryCannotRunAnything() throws IOException, InterruptedException {
        Path trap = repository(REPOSITORIES.resolve("trap"));
        Path sprung = trap.resolve("sprung");
        Path program = trap.resolve("program.sh");
        Files.writeString(program, "#!/bin/sh\ntouch " + sprung + "\n");
        assertThat(program.toFile().setExecutable(true)).isTrue();
        for (String setting :
                List.of("core.fsmonitor", "core.pager", "core.sshCommand", "diff.external", "filter.x.smudge")) {
            git(trap, "config", setting, program.toString());
        }
        StudyInTheMaking.ok(read(study(), trap.toString(), "main", "src/Buoy.java"));
        assertThat(sprung).doesNotExist();
    }

    private static ApiClient.Response zipped(StudyInTheMaking study, Map<String, byte[]> files) {
        return study.lead.upload(study.path + "/starting-code/zip", zip(files));
    }

    @Test
    public void aZipGivesItsTextsAndSaysWhatItLeftOut() {
        Map<String, byte[]> files = new TreeMap<>();
        files.put("src/A.java", bytes("class A {}\n"));
        files.put("b.bin", new byte[] {0, 1});
        files.put("latin.txt", new byte[] {(byte) 0xe4});
        JsonNode taken = StudyInTheMaking.ok(zipped(study(), files));
        assertThat(taken.path("files").size()).isEqualTo(1);
        assertThat(taken.at("/files/0/path").asString()).isEqualTo("src/A.java");
        assertThat(taken.path("leftOut").size()).isEqualTo(2);
    }

    @DataProvider
    public static Object[][] badPaths() {
        return new Object[][] {{"../up"}, {"a/../../up"}, {"/root"}, {"a\\b"}, {"./a"}, {"a//b"}};
    }

    @Test(dataProvider = "badPaths")
    public void aZipThatReachesOutOfItselfIsRefused(String path) {
        assertThat(zipped(study(), Map.of(path, bytes("x"))).problem()).isEqualTo("starting-code-refused");
    }

    @Test
    public void aZipOfTooMuchIsRefusedBeforeItIsUnpacked() {
        assertThat(zipped(study(), Map.of("zeros.txt", new byte[6 << 20])).problem())
                .isEqualTo("starting-code-refused");
        Map<String, byte[]> many = new TreeMap<>();
        for (int i = 0; i < 401; i++) {
            many.put("f" + i, bytes("x"));
        }
        assertThat(zipped(study(), many).problem()).isEqualTo("starting-code-refused");
        StudyInTheMaking study = study();
        assertThat(study.lead
                        .upload(study.path + "/starting-code/zip", bytes("no zip"))
                        .problem())
                .isEqualTo("starting-code-refused");
    }
}
