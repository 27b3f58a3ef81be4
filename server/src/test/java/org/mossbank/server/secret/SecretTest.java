package org.mossbank.server.secret;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.awaitility.Awaitility;
import org.mossbank.server.Bodies;
import org.mossbank.server.ServerTest;
import org.mossbank.server.StudyInTheMaking;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.standin.StandIn;
import org.mossbank.testkit.ApiClient;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** What looks like a secret is shown, without being said, and nothing of it is sent until a person has said that it may be. */
public class SecretTest extends ServerTest {
    private static final String PASSWORD = "hunting-grounds-77";
    private static final String TOKEN = "Zk3vQ9mXw2Lr8TnB5yHd1CsJ";

    @Autowired
    private JdbcClient database;

    @Autowired
    private HeldSecrets held;

    private StandIn standIn;
    private StudyInTheMaking own;
    private String prompt;

    @BeforeClass(dependsOnMethods = "springTestContextPrepareTestInstance")
    public void begin() throws IOException {
        standIn = StandIn.start(0, List.of(ROOT.resolve("demo")), SECRET);
    }

    @AfterClass
    public void end() {
        standIn.close();
    }

    /** A prompt with a password in a file, the same in a follow-up, and a token in another file; one without any. */
    @BeforeMethod
    public void makeAStudy() {
        own = StudyInTheMaking.begunBy(as(LEAD));
        own.prompt("review", "Without any");
        prompt = own.prompt("debugging", "The one with secrets");
        write(Map.of(
                "startingFiles",
                List.of(
                        Map.of("path", "conf/mail.properties", "text", "host=mail\n\npassword=" + PASSWORD + "\n"),
                        Map.of("path", "Client.java", "text", "String token = \"" + TOKEN + "\";\n")),
                "followUps",
                List.of("Does it hold with password=" + PASSWORD)));
        String id = own.candidate("Candidate 1");
        String url = "http://127.0.0.1:" + standIn.port() + "/quillwort?hurry=20";
        own.put("/sources/" + id, Map.of("version", -1, "content", Bodies.source(url)));
    }

    private void write(Map<String, Object> parts) {
        JsonNode now = own.get("/prompts").values().stream()
                .filter(p -> p.path("id").asString().equals(prompt))
                .findFirst()
                .orElseThrow();
        Map<String, Object> content = new HashMap<>(Bodies.prompt("The one with secrets", "Find the cause of it."));
        content.putAll(parts);
        own.put(
                "/prompts/" + prompt,
                Map.of(
                        "version", now.path("version").asLong(),
                        "kindId", now.at("/kind/id").asString(),
                        "content", content));
    }

    private List<JsonNode> found() {
        return own.get("/secrets").path("found").valueStream().toList();
    }

    private ApiClient.Response clear(String digest) {
        return own.lead.put(own.path + "/secrets/" + digest, Map.of("why", "It opens nothing."));
    }

    private void clearAll() {
        found().stream()
                .map(f -> f.path("digest").asString())
                .distinct()
                .forEach(d -> assertThat(clear(d).status()).isEqualTo(204));
    }

    private Map<String, Object> all() {
        List<String> prompts = ids("/prompts");
        return new HashMap<>(Bodies.run(prompts, ids("/candidates")));
    }

    private List<String> ids(String of) {
        return own.get(of).values().stream().map(n -> n.path("id").asString()).toList();
    }

    private JsonNode await(String run, String state) {
        return Awaitility.await()
                .atMost(Duration.ofSeconds(90))
                .pollInterval(Duration.ofMillis(50))
                .until(
                        () -> own.get("/runs/" + run),
                        r -> r.path("state").asString().equals(state));
    }

    @Test
    public void isShownByItsPlaceAndNeverSaid() {
        ApiClient.Response response = own.lead.get(own.path + "/secrets");
        JsonNode secrets = response.json();
        assertThat(secrets.path("open").asInt()).isEqualTo(3);
        assertThat(found())
                .extracting(
                        f -> f.path("part").asString() + " " + f.path("name").asString() + ":"
                                + f.path("line").asInt() + " " + f.path("hint").asString())
                .containsExactlyInAnyOrder(
                        "STARTING_FILE conf/mail.properties:3 hun…",
                        "STARTING_FILE Client.java:1 Zk3…",
                        "FOLLOW_UP 1:1 hun…");
        assertThat(response.body()).doesNotContain(PASSWORD, TOKEN);
        assertThat(found()).extracting(f -> f.path("prompt").asString()).containsOnly("The one with secrets");
    }

    @Test
    public void holdsARunBackUntilAPersonHasSaidThatItMayBeSent() {
        ApiClient.Response refused = own.lead.post(own.path + "/runs", all());
        assertThat(refused.status()).isEqualTo(409);
        assertThat(refused.json().path("type").asString()).endsWith("/secrets-found");
        assertThat(refused.body()).contains("3 places").doesNotContain(PASSWORD, TOKEN);
        assertThat(own.get("/runs")).isEmpty();

        clearAll();

        assertThat(own.get("/secrets").path("open").asInt()).isZero();
        assertThat(found())
                .allSatisfy(f -> assertThat(f.at("/cleared/why").asString()).isEqualTo("It opens nothing."));
        await(own.post("/runs", all()).path("id").asString(), "FINISHED");
    }

    /** What is not asked about holds nothing up. */
    @Test
    public void holdsBackOnlyThePromptsThatItStandsIn() {
        Map<String, Object> what = all();
        what.put("promptIds", List.of(ids("/prompts").get(0)));
        await(own.post("/runs", what).path("id").asString(), "FINISHED");
    }

    /** Of what stands in two places, one word is enough; it is known by a digest, which is another in every study. */
    @Test
    public void isClearedWhereverItStands() {
        Set<String> digests = Set.copyOf(
                found().stream().map(f -> f.path("digest").asString()).toList());
        assertThat(digests).hasSize(2).allSatisfy(d -> assertThat(d).matches("[0-9a-f]{64}"));
        String password = found().stream()
                .filter(f -> f.path("hint").asString().equals("hun…"))
                .map(f -> f.path("digest").asString())
                .findFirst()
                .orElseThrow();
        assertThat(clear(password).status()).isEqualTo(204);
        assertThat(own.get("/secrets").path("open").asInt()).isEqualTo(1);
        // What is open comes first.
        assertThat(found()).extracting(f -> f.path("hint").asString()).containsExactly("Zk3…", "hun…", "hun…");

        assertThat(own.lead.delete(own.path + "/secrets/" + password).status()).isEqualTo(204);
        assertThat(own.get("/secrets").path("open").asInt()).isEqualTo(3);

        String before = String.join(" ", digests);
        makeAStudy();
        assertThat(found()).noneMatch(f -> before.contains(f.path("digest").asString()));
    }

    @Test
    public void nothingIsClearedThatIsNotThere() {
        assertThat(clear("0".repeat(64)).status()).isEqualTo(404);
        assertThat(clear("no-digest").status()).isEqualTo(404);
    }

    /** The lead may write one into a prompt while a run goes on: the rest of it waits. */
    @Test
    public void pausesARunThatCameToHaveOne() {
        clearAll();
        Map<String, Object> what = all();
        what.put("promptIds", List.of(prompt));
        what.put("attempts", 2);
        String digest = found().get(0).path("digest").asString();
        String run = own.post("/runs", what).path("id").asString();
        await(run, "FINISHED");
        own.lead.delete(own.path + "/secrets/" + digest);
        // As if it had been begun before: nothing of it is asked yet.
        database.sql("update run_cell set state = 'WAITING', answer_id = null, outcome = null where run_id = ?")
                .params(java.util.UUID.fromString(run))
                .update();
        database.sql("update run set state = 'RUNNING' where id = ?")
                .params(java.util.UUID.fromString(run))
                .update();

        JsonNode paused = await(run, "PAUSED");

        assertThat(paused.path("reason").asString()).contains("in what would be sent look", "may be sent");
        assertThat(paused.path("cells").valueStream().map(c -> c.path("state").asString()))
                .containsOnly("WAITING");
        assertThat(own.lead
                        .post(own.path + "/runs/" + run + "/resume", Map.of())
                        .status())
                .isEqualTo(409);
    }

    @Test
    public void holdsBackAFollowUpInItsOwnWords() {
        clearAll();
        await(own.post("/runs", all()).path("id").asString(), "FINISHED");
        String answer =
                own.get("/prompts/" + prompt + "/answers").get(0).path("id").asString();
        Map<String, Object> asked =
                new HashMap<>(Map.of("answerId", answer, "asked", "Try it with password=gr33n-heron"));
        ApiClient.Response refused = own.lead.post(own.path + "/runs/follow-up", asked);
        assertThat(refused.status()).isEqualTo(409);
        assertThat(refused.json().path("type").asString()).endsWith("/secrets-found");
        asked.put("mayBeSent", true);
        assertThat(own.lead.post(own.path + "/runs/follow-up", asked).status()).isEqualTo(201);
    }

    /** A prompt is looked through once in each of its versions. */
    @Test
    public void isFoundAnewWhenAPromptChanges() {
        assertThat(found()).hasSize(3);
        write(Map.of("request", "Why does api_key = '8kd02ms9f2' not work?"));
        assertThat(found()).extracting(f -> f.path("part").asString()).containsExactly("REQUEST");
        HeldSecrets.Looked looked = held.look(StudyId.from(own.id()), List.of(PromptId.from(prompt)));
        assertThat(looked.open()).isEqualTo(1);
        assertThat(held.look(StudyId.from(own.id()), new ArrayList<>()).open()).isZero();
    }

    /** Else whoever has said of a hundred that they may be sent would send the next without a word. */
    @Test
    public void whatIsTooMuchToTellIsHeldBackTogether() {
        StringBuilder many = new StringBuilder();
        for (int i = 0; i < 120; i++) {
            many.append("password = 'hunting-grounds-").append(i).append("'\n");
        }
        write(Map.of("startingFiles", List.of(Map.of("path", "many.properties", "text", many.toString()))));
        assertThat(found()).hasSize(101);
        found().stream()
                .filter(f -> !f.path("sort").asString().equals("MANY"))
                .forEach(f -> clear(f.path("digest").asString()));
        assertThat(own.lead.post(own.path + "/runs", all()).status()).isEqualTo(409);
        // What is still open comes first.
        assertThat(clear(found().get(0).path("digest").asString()).status()).isEqualTo(204);
        assertThat(own.get("/secrets").path("open").asInt()).isZero();
        write(Map.of("startingFiles", List.of(Map.of("path", "many.properties", "text", many + "# one more\nx=1\n"))));
        assertThat(own.get("/secrets").path("open").asInt()).isEqualTo(1);
    }

    /** The value itself is in the prompt alone. */
    @Test
    public void isNotKeptItself() {
        clearAll();
        assertThat(database.sql("select digest || why || cleared_by from cleared_secret")
                        .query(String.class)
                        .list())
                .isNotEmpty()
                .noneMatch(row -> row.contains(PASSWORD) || row.contains(TOKEN));
    }
}
