package org.mossbank.server.archive;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Map;
import org.awaitility.Awaitility;
import org.mossbank.server.ServerTest;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.shared.Progress;
import org.mossbank.testkit.ApiClient;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.transaction.support.TransactionTemplate;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** An archive that is brought in beside everything else, can be given up, and makes one study however often it is sent. */
public class ImportTest extends ServerTest {
    private static final String IMPORTS = "/api/imports";

    @Autowired
    private ArchiveLoader loader;

    @Autowired
    private Accounts accounts;

    @Autowired
    private TransactionTemplate transactions;

    private static byte[] archive(String title) {
        return zip(renamed(title));
    }

    private static Map<String, byte[]> renamed(String title) {
        Map<String, byte[]> files = byHand();
        String head = new String(files.get("study.json"), java.nio.charset.StandardCharsets.UTF_8);
        files.put("study.json", bytes(head.replaceFirst("\"title\": \"[^\"]*\"", "\"title\": \"" + title + "\"")));
        return files;
    }

    private JsonNode ended(JsonNode begun) {
        String address = IMPORTS + "/" + begun.path("id").asString();
        return Awaitility.await()
                .until(
                        () -> as(LEAD).get(address).json(),
                        j -> !j.path("state").asString().matches("WAITING|RUNNING"));
    }

    private JsonNode sent(byte[] file, String tail) {
        ApiClient.Response begun = as(LEAD).upload(IMPORTS + tail, "of spring.zip", file);
        assertThat(begun.status()).as(begun.body()).isEqualTo(202);
        return ended(begun.json());
    }

    private long studies(String title) {
        return as(LEAD).get("/api/my-studies?part=" + URLEncoder.encode(title, StandardCharsets.UTF_8))
                .json()
                .path("total")
                .asLong();
    }

    @Test
    public void isToldHowFarItIsAndWhatCameOfIt() {
        JsonNode done = sent(archive("Told of"), "");
        assertThat(done.path("state").asString()).isEqualTo("DONE");
        assertThat(done.path("file").asString()).isEqualTo("of spring.zip");
        assertThat(done.at("/brought/title").asString()).isEqualTo("Told of");
        assertThat(studies("Told of")).isOne();
        assertThat(as(LEAD).get(IMPORTS).json().at("/0/id")).isEqualTo(done.path("id"));
    }

    @Test
    public void sayWhatIsWrongAsEverybodyElseDoes() {
        JsonNode refused = sent(bytes("no zip"), "");
        assertThat(refused.path("state").asString()).isEqualTo("REFUSED");
        assertThat(refused.at("/faults/0/expected").asString()).contains("zip");
        assertThat(refused.path("detail").asString()).contains("Nothing was loaded");
    }

    /** As after a connection that was lost before anybody was told. */
    @Test
    public void theSameFileSentAgainMakesNoSecondStudyUnlessTold() {
        byte[] file = archive("Sent twice");
        JsonNode first = sent(file, "");
        assertThat(first.path("brought").has("thereSince")).isFalse();
        JsonNode again = sent(file, "");
        assertThat(again.at("/brought/studyId")).isEqualTo(first.at("/brought/studyId"));
        assertThat(again.at("/brought/thereSince").asString()).isNotBlank();
        assertThat(as(LEAD).upload("/api/studies/archive", file).json().path("studyId"))
                .isEqualTo(first.at("/brought/studyId"));
        assertThat(studies("Sent twice")).isOne();

        JsonNode told = sent(file, "?again=true");
        assertThat(told.at("/brought/studyId")).isNotEqualTo(first.at("/brought/studyId"));
        assertThat(studies("Sent twice")).isEqualTo(2);
    }

    @Test
    public void nobodyElseSeesIt() {
        JsonNode own = sent(archive("Only mine"), "");
        String address = IMPORTS + "/" + own.path("id").asString();
        assertThat(as(RATER).get(address).status()).isEqualTo(403);
        assertThat(nobody().get(address).status()).isEqualTo(401);
        assertThat(as(LEAD).get(IMPORTS + "/" + java.util.UUID.randomUUID()).status())
                .isEqualTo(404);
    }

    @Test
    public void endsAtTheNextPartOnceItIsGivenUp() {
        ImportJob job = new ImportJob(AccountId.random(), "a.zip", Instant.parse("2026-03-10T09:00:00Z"));
        StringBuilder done = new StringBuilder();
        job.run(() -> {
            Progress.stage("writing sheets", 3);
            Progress.advance(1);
            done.append(job.view().stage())
                    .append(' ')
                    .append(job.view().done())
                    .append(" of ");
            done.append(job.view().total());
            job.giveUp();
            Progress.advance(1);
            throw new AssertionError("it went on");
        });
        assertThat(done).hasToString("writing sheets 1 of 3");
        assertThat(job.view().state()).isEqualTo(ImportView.State.CANCELLED);
    }

    /** As late as can be: all is written, and given up before the transaction ends. */
    @Test
    public void nothingIsWrittenOfWhatWasGivenUpHalfWay() {
        StudyArchive archive = ArchiveReader.read(ArchiveFiles.of(renamed("Given up")), () -> 7, Instant.now())
                .study()
                .orElseThrow();
        AccountId lead = accounts.find(LEAD).orElseThrow().id();
        Progress progress = new Progress();
        assertThatThrownBy(() -> progress.follow(() -> transactions.execute(status -> {
                    loader.load(ArchiveLoader.Weighed.of(archive), lead);
                    progress.giveUp();
                    Progress.advance(1);
                    return true;
                })))
                .isInstanceOf(Progress.Unwanted.class);
        assertThat(studies("Given up")).isZero();
        transactions.executeWithoutResult(status -> loader.load(ArchiveLoader.Weighed.of(archive), lead));
        assertThat(studies("Given up")).as("it is loaded if nobody gives it up").isOne();
    }

    @Test
    public void whatWaitsCanBeGivenUp() {
        ImportJob job = new ImportJob(AccountId.random(), "a.zip", Instant.parse("2026-03-10T09:00:00Z"));
        job.giveUp();
        job.run(() -> {
            throw new AssertionError("it began");
        });
        assertThat(job.view().state()).isEqualTo(ImportView.State.CANCELLED);
    }

    /** The shell of {@code docs/api.md}, as it stands there, against this server. */
    @Test
    public void theDocumentedCallsWork() throws Exception {
        String document = Files.readString(ROOT.resolve("docs/api.md"));
        int start = document.indexOf("```sh\n") + "```sh\n".length();
        String calls = document.substring(start, document.indexOf("```", start))
                .replace("http://127.0.0.1:8750", address().toString());
        Path folder = Files.createTempDirectory("calls");
        Files.write(folder.resolve("study.zip"), archive("By the shell"));
        Process shell = new ProcessBuilder("bash", "-e", "-c", calls)
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .start();
        String printed = new String(shell.getInputStream().readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
        assertThat(shell.waitFor()).as(printed).isZero();
        assertThat(printed).contains("\"signInName\":\"orla\"").contains("\"file\":\"study.zip\"");
        Awaitility.await().until(() -> studies("By the shell") == 1);
    }
}
