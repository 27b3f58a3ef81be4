package org.mossbank.server.evidence;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mossbank.server.StudyInTheMaking.ok;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Consumer;
import java.util.stream.StreamSupport;
import org.mossbank.server.ServerTest;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Trials at the desk: when they are shown, that they show no candidate, inputs of one's own, repairs, and saying otherwise. */
public class DeskTrialsTest extends ServerTest {
    private static final Map<String, Object> NO_INPUT = Map.of("arguments", List.of(), "input", "");

    private record Desk(ApiClient rater, String study, String sheet, JsonNode answers) {
        String path() {
            return "/api/sheets/" + sheet;
        }

        JsonNode trials() {
            return ok(rater.get(path() + "/trials"));
        }

        /** The trial of the answer that failed, or of the other. */
        JsonNode trial(boolean failing) {
            return StreamSupport.stream(trials().path("answers").spliterator(), false)
                    .filter(a -> a.at("/result/summary/outcome").asString().equals("PASSED") != failing)
                    .findFirst()
                    .orElseThrow();
        }

        JsonNode answer(JsonNode trial) {
            return StreamSupport.stream(answers.spliterator(), false)
                    .filter(a -> a.path("id").equals(trial.path("answerId")))
                    .findFirst()
                    .orElseThrow();
        }

        void grade(JsonNode answer, int level) {
            ok(rater.put(
                    ServerTest.gradePath(sheet, answer, answer.path("grades").get(0)), ServerTest.grade(0, level)));
        }
    }

    private Desk desk(String shown) {
        return desk(shown, files -> {});
    }

    private Desk desk(String shown, Consumer<Map<String, byte[]>> change) {
        String study = bringIn(TriedStudy.shown(shown).andThen(change));
        ApiClient rater = as(RATER);
        String sheet = sheets(rater, study).stream()
                .map(s -> s.path("id").asString())
                .filter(s -> rater.get("/api/sheets/" + s)
                        .json()
                        .at("/answers/0/text")
                        .asString()
                        .contains("read depth"))
                .findFirst()
                .orElseThrow();
        return new Desk(
                rater, study, sheet, ok(rater.get("/api/sheets/" + sheet)).path("answers"));
    }

    private static List<String> values(JsonNode nodes, String field) {
        List<String> values = new ArrayList<>();
        nodes.forEach(n -> values.add(n.path(field).asString("")));
        return values;
    }

    @Test
    public void fromTheStartEachAnswersTrialIsThere() {
        JsonNode trials = desk("from-the-start").trials();

        assertThat(trials.path("shown").asString()).isEqualTo("FROM_THE_START");
        assertThat(trials.path("takesInput").asBoolean()).isTrue();
        assertThat(values(trials.path("answers"), "awaitsGrade")).containsExactly("false", "false");
        assertThat(values(trials.path("answers"), "proposed")).containsExactlyInAnyOrder("AS_IS", "NOT");
    }

    @Test
    public void whatAProgramPrintedIsMaskedAsAnswersAre() {
        JsonNode failing = desk("from-the-start").trial(true);

        assertThat(failing.toString()).doesNotContainIgnoringCase("osier");
        assertThat(failing.at("/result/items/0/came").asString()).isEqualTo("[masked] says 4\n");
        assertThat(failing.at("/result/log").asString()).contains("[masked] says 4");
    }

    @Test
    public void afterTheOwnGradeOnlyThoseThatAreGraded() {
        Desk desk = desk("after-own-grade");
        assertThat(values(desk.trials().path("answers"), "awaitsGrade")).containsExactly("true", "true");
        assertThat(desk.trials().at("/answers/0/result").isMissingNode()).isTrue();
        assertThat(desk.trials().at("/answers/0/turns")).isEmpty();

        desk.grade(desk.answers.get(0), 2);

        JsonNode answers = desk.trials().path("answers");
        assertThat(values(answers, "awaitsGrade")).containsExactly("false", "true");
        assertThat(answers.at("/0/result/items")).hasSize(1);
        assertThat(answers.at("/1/result").isMissingNode()).isTrue();
    }

    @Test
    public void neverMeansNothingAndNoInput() {
        Desk desk = desk("never");
        desk.grade(desk.answers.get(0), 2);

        JsonNode trials = desk.trials();
        assertThat(values(trials.path("answers"), "awaitsGrade")).containsExactly("true", "true");
        assertThat(trials.at("/answers/0/proposed").isMissingNode()).isTrue();
        assertThat(desk.rater
                        .post(desk.path() + "/inputs", Map.of("arguments", List.of(), "input", "7\n"))
                        .problem())
                .isEqualTo("not-ready");
        assertThat(desk.rater
                        .get(desk.path() + "/answers/"
                                + desk.answers.get(0).path("id").asString() + "/repairable")
                        .problem())
                .isEqualTo("not-ready");
    }

    @Test
    public void anInputOfOnesOwnIsGivenToEachAnswer() {
        Desk desk = desk("from-the-start");
        JsonNode given = ok(desk.rater.post(desk.path() + "/inputs", Map.of("arguments", List.of(), "input", "7\n")));
        String input = given.path("id").asString();

        List<String> outputs = new ArrayList<>();
        for (JsonNode answer : desk.answers) {
            JsonNode end = ok(desk.rater.put(
                    desk.path() + "/inputs/" + input + "/answers/"
                            + answer.path("id").asString(),
                    Map.of()));
            outputs.add(end.at("/end/output").asString());
        }

        assertThat(outputs).containsExactlyInAnyOrder("[masked] says 7\n", "depth 7\n");
        JsonNode kept = ok(desk.rater.get(desk.path() + "/inputs"));
        assertThat(kept.at("/0/ends")).hasSize(2);
        assertThat(kept.toString()).doesNotContainIgnoringCase("osier");
        assertThat(desk.trials().path("inputsLeft").asInt()).isEqualTo(OwnInputs.MOST_A_SHEET - 1);
    }

    /** The last of all: then nobody may give one for a minute. */
    @Test(priority = 1)
    public void inputsAreCountedAndBounded() {
        Desk desk = desk("from-the-start");
        // What the same rater gave elsewhere within the minute counts too.
        List<ApiClient.Response> given = new ArrayList<>();
        for (int i = 0; i <= OwnInputs.MOST_A_MINUTE; i++) {
            given.add(desk.rater.post(desk.path() + "/inputs", NO_INPUT));
        }

        ApiClient.Response refused = given.get(OwnInputs.MOST_A_MINUTE);
        assertThat(refused.status()).isEqualTo(429);
        assertThat(refused.problem()).isEqualTo("too-many-inputs");
    }

    /** Two at once would both find room for the last one. */
    @Test
    public void oneInputAtATimeIsCounted() throws Exception {
        Desk desk = desk("from-the-start");
        ExecutorService beside = Executors.newSingleThreadExecutor();
        try (Connection other = DATABASE.connect();
                PreparedStatement turn = other.prepareStatement(
                        "select pg_advisory_xact_lock(hashtextextended('own inputs of ' || id, 0)) from account "
                                + "where sign_in_name = ?")) {
            other.setAutoCommit(false);
            turn.setString(1, RATER);
            turn.execute();
            Future<ApiClient.Response> given = beside.submit(() -> desk.rater.post(desk.path() + "/inputs", NO_INPUT));
            assertThatThrownBy(() -> given.get(1, TimeUnit.SECONDS)).isInstanceOf(TimeoutException.class);

            other.commit();

            assertThat(given.get().status()).isEqualTo(200);
        } finally {
            beside.shutdownNow();
        }
    }

    @Test
    public void aRepairIsTriedKeptAndSeenByOthersBlind() {
        Desk desk = desk("from-the-start");
        String answer = desk.trial(true).path("answerId").asString();
        JsonNode files = ok(desk.rater.get(desk.path() + "/answers/" + answer + "/repairable"));
        assertThat(files.at("/0/path").asString()).isEqualTo("answer.sh");
        assertThat(files.at("/0/text").asString()).contains("[masked] says");

        JsonNode made = ok(desk.rater.post(
                desk.path() + "/answers/" + answer + "/repairs",
                Map.of(
                        "files",
                        List.of(Map.of(
                                "path",
                                "answer.sh",
                                "text",
                                files.at("/0/text").asString().replace("[masked] says", "depth"))))));

        assertThat(made.at("/repair/lines").asInt()).isEqualTo(1);
        assertThat(made.at("/result/summary/outcome").asString()).isEqualTo("PASSED");
        assertThat(made.toString()).doesNotContainIgnoringCase("osier");
        JsonNode again = ok(desk.rater.get(desk.path() + "/trials"));
        JsonNode repaired = StreamSupport.stream(again.path("answers").spliterator(), false)
                .filter(a -> a.path("answerId").asString().equals(answer))
                .findFirst()
                .orElseThrow();
        assertThat(repaired.path("proposed").asString()).isEqualTo("AFTER_REPAIR");
        assertThat(repaired.at("/repairs/0/isOwn").asBoolean()).isTrue();
        assertThat(ok(desk.rater.get(desk.path() + "/answers/" + answer + "/repairs/"
                                + repaired.at("/repairs/0/id").asString()))
                        .at("/summary/outcome")
                        .asString())
                .isEqualTo("PASSED");
        ApiClient other = as("juri");
        String othersSheet = sheets(other, desk.study).stream()
                .map(s -> s.path("id").asString())
                .filter(s ->
                        ok(other.get("/api/sheets/" + s + "/trials")).toString().contains("AFTER_REPAIR"))
                .findFirst()
                .orElseThrow();
        JsonNode seen = ok(other.get("/api/sheets/" + othersSheet + "/trials"));
        assertThat(seen.toString())
                .contains("\"isOwn\":false")
                .doesNotContainIgnoringCase("osier")
                .doesNotContainIgnoringCase("bram");
        assertThat(ok(as(LEAD).get("/api/studies/" + desk.study + "/evidence")).toString())
                .contains("AFTER_REPAIR");
    }

    @Test
    public void aPathThatNamesACandidateIsMaskedAndStillFound() {
        Desk desk = desk(
                "from-the-start",
                TriedStudy.edited(
                                "text/mean-level-osier.md",
                                t -> t.replace("read depth", "# osier-helper.sh\nread depth"))
                        .andThen(TriedStudy.edited(
                                "checks/mean-level.json", c -> c.replace("sh ./answer.sh", "sh ./*.sh"))));
        String path =
                desk.path() + "/answers/" + desk.trial(true).path("answerId").asString();
        JsonNode files = ok(desk.rater.get(path + "/repairable"));
        assertThat(files.toString()).doesNotContainIgnoringCase("osier").contains("[masked]-helper.sh");

        JsonNode made = ok(desk.rater.post(
                path + "/repairs",
                Map.of(
                        "files",
                        List.of(Map.of(
                                "path",
                                files.at("/0/path").asString(),
                                "text",
                                "read depth\necho \"depth $depth\"\n")))));

        assertThat(made.at("/result/summary/outcome").asString()).isEqualTo("PASSED");
        assertThat(made.toString()).doesNotContainIgnoringCase("osier");
    }

    @Test
    public void aRepairThatChangesNothingOrAnotherFileIsRefused() {
        Desk desk = desk("from-the-start");
        String path =
                desk.path() + "/answers/" + desk.trial(true).path("answerId").asString();
        JsonNode files = ok(desk.rater.get(path + "/repairable"));

        assertThat(desk.rater.post(path + "/repairs", Map.of("files", files)).status())
                .isEqualTo(400);
        assertThat(desk.rater
                        .post(
                                path + "/repairs",
                                Map.of("files", List.of(Map.of("path", "../../etc/passwd", "text", "x"))))
                        .status())
                .isEqualTo(400);
    }

    @Test
    public void whoeverSaysOtherwiseThanATrialSaysWhy() {
        Desk desk = desk("from-the-start");
        JsonNode failing = desk.trial(true);
        String works = desk.path() + "/answers/" + failing.path("answerId").asString() + "/works";
        ok(desk.rater.put(works, change(0, Map.of("works", "AS_IS"))));
        desk.answers.forEach(a ->
                a.path("grades").forEach(g -> ok(desk.rater.put(gradePath(desk.sheet, a, g), ServerTest.grade(0, 2)))));

        ApiClient.Response refused = desk.rater.post(desk.path() + "/send", Map.of());
        assertThat(refused.problem()).isEqualTo("sheet-incomplete");
        assertThat(refused.body()).contains("say why");

        ok(desk.rater.put(
                works, change(1, Map.of("works", "AS_IS", "why", "The check wants a word nobody asked for."))));
        ok(desk.rater.post(desk.path() + "/send", Map.of()));
        assertThat(desk.rater.put(works, change(2, Map.of("works", "NOT"))).status())
                .isEqualTo(409);
        assertThat(desk.rater
                        .post(desk.path() + "/inputs", Map.of("arguments", List.of(), "input", ""))
                        .problem())
                .as("what is sent in is tried no more")
                .isEqualTo("not-ready");
    }

    @Test
    public void whoeverSaysAsTheTrialOrNothingNeedsNoWord() {
        Desk desk = desk("from-the-start");
        JsonNode failing = desk.trial(true);
        String works = desk.path() + "/answers/" + failing.path("answerId").asString() + "/works";
        ok(desk.rater.put(works, change(0, Map.of("works", "SAID_DONE"))));
        desk.answers.forEach(a ->
                a.path("grades").forEach(g -> ok(desk.rater.put(gradePath(desk.sheet, a, g), ServerTest.grade(0, 2)))));

        ok(desk.rater.post(desk.path() + "/send", Map.of()));
    }
}
