package org.mossbank.server.trial;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mossbank.server.Checks.exactly;
import static org.mossbank.server.Checks.oneRun;
import static org.mossbank.server.Checks.shell;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.awaitility.Awaitility;
import org.mossbank.server.Bodies;
import org.mossbank.server.ServerTest;
import org.mossbank.server.StudyInTheMaking;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Checks of prompts, and trials of answers by them. */
public class TrialTest extends ServerTest {
    @Autowired
    private JdbcTemplate database;

    /** A study with a prompt of which two candidates' answers are shell programs. */
    private StudyInTheMaking study(String first, String second) {
        StudyInTheMaking own =
                StudyInTheMaking.begunBy(as(LEAD)).withClosedBrief().withRubric();
        String prompt = own.prompt("debugging", "Mend the gauge");
        for (String program : List.of(first, second)) {
            String candidate = own.candidate("Model " + (program.equals(first) ? "one" : "two"));
            own.post("/answers", Bodies.answer(prompt, candidate, "Here:\n\n```sh\n" + program + "\n```\n"));
        }
        return own;
    }

    private static String prompt(StudyInTheMaking own) {
        return "/prompts/" + own.get("/prompts").at("/0/id").asString();
    }

    /** By the shell: the answer must write high. */
    private static Map<String, Object> high() {
        Map<String, Object> check = new HashMap<>(shell("sh ./answer.sh"));
        check.put("loose", Map.of("path", "answer.sh", "before", "", "after", "", "importsFirst", false));
        check.put("runs", List.of(oneRun("spring tide", Map.of("output", exactly("high\n")))));
        return check;
    }

    private static JsonNode check(StudyInTheMaking own, int revision, Map<String, Object> content) {
        return own.put(prompt(own) + "/check", Map.of("revision", revision, "content", content));
    }

    private static JsonNode ended(StudyInTheMaking own) {
        Awaitility.await()
                .atMost(java.time.Duration.ofMinutes(2))
                .until(() -> own.get("/trials")
                        .path("trials")
                        .valueStream()
                        .allMatch(t -> t.path("state").asString().equals("ENDED")));
        return own.get("/trials").path("trials");
    }

    private static List<String> outcomes(JsonNode trials) {
        return trials.valueStream()
                .map(t -> t.path("outcome").asString())
                .sorted()
                .toList();
    }

    @Test
    public void answersAreTriedByTheCheckOfTheirPrompt() {
        StudyInTheMaking own = study("echo high", "echo low");
        check(own, 0, high());
        own.post("/trials", Map.of("promptIds", List.of(), "repetitions", 2));

        JsonNode trials = ended(own);

        assertThat(outcomes(trials)).containsExactly("PASSED", "PASSED", "WRONG_OUTPUT", "WRONG_OUTPUT");
        assertThat(trials.valueStream()
                        .map(t -> t.path("answerId").asString())
                        .limit(2)
                        .distinct())
                .as("candidates take turns")
                .hasSize(2);
        JsonNode wrong = trials.valueStream()
                .filter(t -> t.path("outcome").asString().equals("WRONG_OUTPUT"))
                .findFirst()
                .orElseThrow();
        JsonNode result = own.get("/trials/" + wrong.path("id").asString());
        assertThat(result.at("/items/0/expected").asString()).isEqualTo("high\n");
        assertThat(result.at("/items/0/came").asString()).isEqualTo("low\n");
        assertThat(result.path("log").asString()).contains("== spring tide");
    }

    @Test
    public void beginningAgainAddsOnlyWhatIsMissing() {
        StudyInTheMaking own = study("echo high", "echo low");
        check(own, 0, high());
        own.post("/trials", Map.of("promptIds", List.of(), "repetitions", 1));
        ended(own);
        own.post("/trials", Map.of("promptIds", List.of(), "repetitions", 1));

        assertThat(ended(own)).hasSize(2);
    }

    @Test
    public void trialsByAnEarlierCheckStayAndDoNotCount() {
        StudyInTheMaking own = study("echo high", "echo low");
        check(own, 0, high());
        own.post("/trials", Map.of("promptIds", List.of(), "repetitions", 1));
        ended(own);
        Map<String, Object> other = high();
        other.put("runs", List.of(oneRun("neap tide", Map.of("output", exactly("low\n")))));
        assertThat(check(own, 1, other).path("revision").asInt()).isEqualTo(2);

        assertThat(own.get("/trials")
                        .path("trials")
                        .valueStream()
                        .map(t -> t.path("isCurrent").asBoolean()))
                .containsExactly(false, false);
        own.post("/trials", Map.of("promptIds", List.of(), "repetitions", 1));
        assertThat(ended(own).valueStream().filter(t -> t.path("isCurrent").asBoolean()))
                .hasSize(2);

        check(own, 2, high());
        assertThat(own.get("/trials")
                        .path("trials")
                        .valueStream()
                        .filter(t -> t.path("isCurrent").asBoolean())
                        .map(t -> t.path("outcome").asString())
                        .sorted())
                .as("as the first check is back, so are its trials")
                .containsExactly("PASSED", "WRONG_OUTPUT");
    }

    @Test
    public void aCheckThatWasChangedElsewhereIsNotOverwritten() {
        StudyInTheMaking own = study("echo high", "echo low");
        check(own, 0, high());

        assertThat(own.lead.put(own.path + prompt(own) + "/check", Map.of("revision", 0, "content", shell("true"))))
                .satisfies(r -> {
                    assertThat(r.status()).isEqualTo(409);
                    assertThat(r.json().path("type").asString()).endsWith("/changed-elsewhere");
                    assertThat(r.json().at("/current/revision").asInt()).isEqualTo(1);
                });
    }

    @Test
    public void anAnswerThatIsAnotherIsTriedAnew() {
        StudyInTheMaking own = study("echo high", "echo low");
        check(own, 0, high());
        own.post("/trials", Map.of("promptIds", List.of(), "repetitions", 1));
        JsonNode trial = ended(own).get(0);
        JsonNode answer = own.get(prompt(own) + "/answers")
                .valueStream()
                .filter(a -> a.path("id").equals(trial.path("answerId")))
                .findFirst()
                .orElseThrow();
        Map<String, Object> body = new HashMap<>();
        body.put("version", answer.path("version").asLong());
        body.put("outcome", "COMPLETE");
        body.put("text", "Now:\n\n```sh\nexit 4\n```\n");
        body.put("followUps", List.of());
        body.put("measures", Map.of("estimated", false));
        own.put("/answers/" + answer.path("id").asString(), body);

        assertThat(own.get("/trials").path("trials")).hasSize(1);
        own.post("/trials", Map.of("promptIds", List.of(), "repetitions", 1));
        assertThat(outcomes(ended(own))).contains("CRASHED");
    }

    @Test
    public void aCheckIsTriedOnTheStartingCodeTheReferenceAndAnAnswer() {
        StudyInTheMaking own = study("echo high", "echo low");
        String answer = own.get("/answers").at("/0/id").asString();

        JsonNode start = own.post(prompt(own) + "/check/try", Map.of("subject", "STARTING_CODE", "content", high()));
        JsonNode reference =
                own.post(prompt(own) + "/check/try", Map.of("subject", "REFERENCE_ANSWER", "content", high()));
        JsonNode tried = own.post(
                prompt(own) + "/check/try", Map.of("subject", "ANSWER", "answerId", answer, "content", high()));

        assertThat(start.at("/result/summary/outcome").asString()).isEqualTo("CRASHED");
        assertThat(reference.at("/result/summary/outcome").asString()).isEqualTo("DID_NOT_APPLY");
        assertThat(tried.at("/result/summary/outcome").asString()).isIn("PASSED", "WRONG_OUTPUT");
        assertThat(own.get("/trials").path("trials")).as("nothing is kept").isEmpty();
    }

    @Test
    public void aCheckThatTellsNothingIsPointedOutAtItsPrompt() {
        StudyInTheMaking own = study("echo high", "echo low");
        Map<String, Object> nothing = shell("true");
        check(own, 0, nothing);
        assertThat(warnings(own)).doesNotContain("check-passes-before", "check-refuses-reference");
        own.post(prompt(own) + "/check/try", Map.of("subject", "STARTING_CODE", "content", nothing));
        assertThat(warnings(own)).contains("check-passes-before");

        check(own, 1, high());
        assertThat(warnings(own)).as("it is another now").doesNotContain("check-passes-before");
        own.post(prompt(own) + "/check/try", Map.of("subject", "STARTING_CODE", "content", high()));
        own.post(prompt(own) + "/check/try", Map.of("subject", "REFERENCE_ANSWER", "content", high()));
        assertThat(warnings(own)).contains("check-refuses-reference").doesNotContain("check-passes-before");
    }

    private static List<String> warnings(StudyInTheMaking own) {
        return own.get("/prompts/warnings")
                .at("/0/warnings")
                .valueStream()
                .map(w -> w.path("type").asString())
                .toList();
    }

    @Test
    public void whatWaitsIsStoppedAndGoesOn() {
        StudyInTheMaking own = study("sleep 2; echo high", "sleep 2; echo low");
        check(own, 0, high());
        own.post("/trials", Map.of("promptIds", List.of(), "repetitions", 3));
        JsonNode stopped = own.post("/trials/stop", Map.of());
        assertThat(stopped.path("trials")
                        .valueStream()
                        .map(t -> t.path("state").asString())
                        .distinct())
                .isSubsetOf("STOPPED", "ENDED")
                .contains("STOPPED");
        Awaitility.await()
                .during(java.time.Duration.ofSeconds(4))
                .atMost(java.time.Duration.ofSeconds(30))
                .until(() -> own.get("/trials")
                        .path("trials")
                        .valueStream()
                        .noneMatch(t -> t.path("state").asString().matches("RUNNING|WAITING")));

        own.post("/trials/go-on", Map.of());

        // It ends by itself when nothing moves any more.
        assertThat(own.lead.firstEvents(own.path + "/trials/events", Integer.MAX_VALUE))
                .contains("event:board")
                .contains("{\"waiting\":0,\"running\":0,\"ended\":6,\"stopped\":0}");
        assertThat(outcomes(ended(own)))
                .containsExactly("PASSED", "PASSED", "PASSED", "WRONG_OUTPUT", "WRONG_OUTPUT", "WRONG_OUTPUT");
    }

    /** What a server was at when it was killed begins anew when its lease has run out, and counts once. */
    @Test
    public void whatAServerThatDiedWasAtIsTakenUpByAnother() {
        StudyInTheMaking own = study("echo high", "echo low");
        check(own, 0, high());
        own.post("/trials", Map.of("promptIds", List.of(), "repetitions", 1));
        ended(own);
        database.update(
                "update trial set state = 'RUNNING', owner = ?, lease_until = now() - interval '1 minute', outcome = null, result = null "
                        + "where study_id = ?",
                UUID.randomUUID(),
                UUID.fromString(own.id()));

        assertThat(outcomes(ended(own))).containsExactly("PASSED", "WRONG_OUTPUT");
    }

    @Test
    public void withoutACheckNothingIsTried() {
        StudyInTheMaking own = study("echo high", "echo low");

        assertThat(own.lead.post(own.path + "/trials", Map.of("promptIds", List.of(), "repetitions", 1)))
                .satisfies(r -> {
                    assertThat(r.status()).isEqualTo(409);
                    assertThat(r.json().path("type").asString()).endsWith("/not-ready");
                });
    }

    @Test
    public void aCheckThatLeadsOutOrAsksNothingIsRefused() {
        StudyInTheMaking own = study("echo high", "echo low");
        Map<String, Object> out = high();
        out.put("files", List.of(Map.of("path", "../outside", "text", "")));
        Map<String, Object> nothing = shell("true");
        nothing.put("runs", List.of());
        Map<String, Object> pattern = high();
        pattern.put(
                "runs",
                List.of(oneRun("a", Map.of("output", Map.of("match", "PATTERN", "text", "(", "tolerance", 0)))));

        Map<String, Object> incomplete = high();
        incomplete.remove("build");
        Map<String, Object> rows = high();
        rows.put(
                "runs",
                List.of(oneRun("a", Map.of("rows", Map.of("query", "select 1", "rows", "one\n1\n", "order", "ANY")))));

        for (Map<String, Object> check : List.of(out, nothing, pattern, incomplete, rows)) {
            assertThat(own.lead
                            .put(own.path + prompt(own) + "/check", Map.of("revision", 0, "content", check))
                            .status())
                    .isEqualTo(400);
        }
    }

    @Test
    public void whatAProgramWritesIsShownWithoutWhatATerminalObeys() {
        StudyInTheMaking own = study("printf '\\033]0;x\\007<script>alert(1)</script>\\000'", "echo low");
        check(own, 0, high());
        own.post("/trials", Map.of("promptIds", List.of(), "repetitions", 1));

        List<String> logs = ended(own)
                .valueStream()
                .map(t -> own.get("/trials/" + t.path("id").asString()))
                .map(r -> r.path("log").asString() + r.at("/items/0/came").asString())
                .toList();

        assertThat(logs).anyMatch(l -> l.contains("<script>"));
        assertThat(logs).noneMatch(l -> l.contains("\u001b") || l.contains("\u0007") || l.contains("\0"));
    }

    @Test
    public void isRemovedWithItsTrials() {
        StudyInTheMaking own = study("echo high", "echo low");
        check(own, 0, high());
        own.post("/trials", Map.of("promptIds", List.of(), "repetitions", 1));
        ended(own);

        assertThat(own.lead.delete(own.path + prompt(own) + "/check").status()).isEqualTo(204);

        assertThat(own.get("/checks")).isEmpty();
        assertThat(own.get("/trials").path("trials")).isEmpty();
    }

    @Test
    public void blocksInAnotherLanguageAreNotTried() {
        StudyInTheMaking own =
                study("echo high\n```\n\nIt writes:\n\n```text\nhigh\n```\n\n```java\nclass A {}", "echo low");
        check(own, 0, high());
        own.post("/trials", Map.of("promptIds", List.of(), "repetitions", 1));

        assertThat(outcomes(ended(own))).containsExactly("PASSED", "WRONG_OUTPUT");
    }
}
