package org.mossbank.server.evidence;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mossbank.server.StudyInTheMaking.ok;

import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.StreamSupport;
import org.mossbank.server.ServerTest;
import org.mossbank.testkit.ApiClient;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** What trials say in the lead's tables, and what an archive keeps of it. */
public class EvidenceTest extends ServerTest {
    @Autowired
    private JdbcTemplate sql;

    private JsonNode evidence(String study) {
        return ok(as(LEAD).get("/api/studies/" + study + "/evidence"));
    }

    private static String candidate(JsonNode evidence, String name) {
        return StreamSupport.stream(evidence.path("candidates").spliterator(), false)
                .filter(c -> c.path("name").asString().equals(name))
                .findFirst()
                .orElseThrow()
                .path("candidateId")
                .asString();
    }

    private static JsonNode of(JsonNode list, String candidate) {
        return StreamSupport.stream(list.spliterator(), false)
                .filter(c -> c.path("candidateId").asString().equals(candidate))
                .findFirst()
                .orElseThrow();
    }

    @Test
    public void whatWorksIsCountedByCandidateWithWilsonsInterval() {
        JsonNode evidence = evidence(bringIn(TriedStudy.shown("never")));

        JsonNode all = evidence.at("/parts/0/candidates");
        JsonNode osier = of(all, candidate(evidence, "Osier"));
        JsonNode teasel = of(all, candidate(evidence, "Teasel"));
        assertThat(osier.path("answers").asInt()).isEqualTo(1);
        assertThat(osier.path("worksNot").asInt()).isEqualTo(1);
        assertThat(teasel.path("worksAsIs").asInt()).isEqualTo(1);
        // z² / (1 + z²) with z = 1.96: of one try that hit, the lower limit is 1 / (1 + z²).
        assertThat(teasel.at("/asIs/low").asDouble()).isCloseTo(0.2065, org.assertj.core.data.Offset.offset(0.0001));
        assertThat(teasel.at("/asIs/high").asDouble()).isEqualTo(1);
        assertThat(evidence.path("prompts")).hasSize(1);
        assertThat(evidence.path("answers")).hasSize(2);
    }

    /** One that was begun before the round was opened may end after it. */
    @Test
    public void aTrialThatEndsAfterTheRoundWasOpenedIsTold() {
        String study = bringIn(TriedStudy.shown("never"));
        assertThat(evidence(study)
                        .path("answers")
                        .valueStream()
                        .map(a -> a.path("times").asInt()))
                .containsExactly(1, 1);

        sql.update(
                "insert into trial (id, study_id, prompt_id, answer_id, turn, repetition, check_digest, digest, place, state, "
                        + "ended_at, outcome, passed, asked, result) select gen_random_uuid(), study_id, prompt_id, answer_id, turn, "
                        + "repetition + 1, check_digest, digest, place, state, ended_at, outcome, passed, asked, result from trial "
                        + "where study_id = ?",
                UUID.fromString(study));

        assertThat(evidence(study)
                        .path("answers")
                        .valueStream()
                        .map(a -> a.path("times").asInt()))
                .containsExactly(2, 2);
    }

    @Test
    public void gradesThatTrialsSpeakAgainstAreShownOnceGradingHasEnded() {
        String study = bringIn(TriedStudy.shown("from-the-start"));
        String path = "/api/studies/" + study + "/recommendation/evidence";
        assertThat(as(LEAD).get(path).problem()).isEqualTo("standings-hidden");
        for (String name : List.of(RATER, "juri")) {
            for (JsonNode sheet : sheets(as(name), study)) {
                gradeAll(as(name), sheet.path("id").asString(), name.equals(RATER) ? 4 : 0);
            }
        }
        as(LEAD).post("/api/studies/" + study + "/round/close", Map.of("reason", "Enough is graded."));

        JsonNode graded = ok(as(LEAD).get(path));

        // Bram gave the highest level to what failed, Juri the lowest to what passed.
        assertThat(graded.path("contradictions")).hasSize(2);
        assertThat(graded.path("contradictions").toString())
                .contains("TOP_GRADE_THOUGH_IT_FAILS", "LOWEST_GRADE_THOUGH_IT_PASSES");
        assertThat(graded.at("/seen/shown").asString()).isEqualTo("FROM_THE_START");
        assertThat(graded.at("/seen/answers").asInt()).as("nobody opened them").isZero();
    }

    /** With reasons, as the ends of a scale need them. */
    private static void gradeAll(ApiClient rater, String sheet, int level) {
        gradeAndSend(rater, sheet, level);
    }

    @Test
    public void whatSeeingTrialsDidIsCounted() {
        String study = bringIn(TriedStudy.shown("after-own-grade"));
        ApiClient rater = as(RATER);
        JsonNode sheet = sheets(rater, study).stream()
                .map(s -> rater.get("/api/sheets/" + s.path("id").asString()).json())
                .filter(s -> s.at("/answers/0/text").asString().contains("read depth"))
                .findFirst()
                .orElseThrow();
        String id = sheet.path("id").asString();
        sheet.path("answers")
                .forEach(a -> a.path("grades").forEach(g -> ok(rater.put(gradePath(id, a, g), grade(0, 2)))));
        ok(rater.get("/api/sheets/" + id + "/trials"));
        JsonNode first = sheet.at("/answers/0");
        ok(rater.put(gradePath(id, first, first.at("/grades/0")), grade(1, 3)));
        ok(rater.post("/api/sheets/" + id + "/send", Map.of()));
        as(LEAD).post("/api/studies/" + study + "/round/close", Map.of("reason", "Enough is graded."));

        JsonNode seen = ok(as(LEAD).get("/api/studies/" + study + "/recommendation/evidence"))
                .path("seen");

        assertThat(seen.path("answers").asInt()).isEqualTo(2);
        assertThat(seen.path("changed").asInt()).isEqualTo(1);
        assertThat(seen.path("raised").asInt()).isEqualTo(1);
    }

    @Test
    public void anArchiveKeepsChecksTrialsRepairsAndWhatRatersTried() {
        String study = bringIn(TriedStudy.shown("from-the-start"));
        ApiClient rater = as(RATER);
        String sheet = sheets(rater, study).stream()
                .map(s -> s.path("id").asString())
                .filter(s -> rater.get("/api/sheets/" + s).body().contains("read depth"))
                .findFirst()
                .orElseThrow();
        JsonNode trials = ok(rater.get("/api/sheets/" + sheet + "/trials"));
        String failing = StreamSupport.stream(trials.path("answers").spliterator(), false)
                .filter(a -> a.path("proposed").asString().equals("NOT"))
                .findFirst()
                .orElseThrow()
                .path("answerId")
                .asString();
        ok(rater.post(
                "/api/sheets/" + sheet + "/answers/" + failing + "/repairs",
                Map.of("files", List.of(Map.of("path", "answer.sh", "text", "read depth\necho \"depth $depth\"\n")))));
        ok(rater.post("/api/sheets/" + sheet + "/inputs", Map.of("arguments", List.of("a;b", ""), "input", "7\n")));
        ok(rater.post("/api/sheets/" + sheet + "/inputs", Map.of("arguments", List.of(), "input", "")));
        ok(rater.put(
                "/api/sheets/" + sheet + "/answers/" + failing + "/works",
                change(0, Map.of("works", "AS_IS", "why", "It does what it should."))));
        byte[] out = export(as(LEAD), study);

        String again = as(LEAD).upload("/api/studies/archive?again=true", out)
                .json()
                .path("studyId")
                .asString();

        Map<String, String> first = unzip(out);
        assertThat(first).containsKeys("checks.csv", "trials.csv", "repairs.csv", "own-inputs.csv", "trials-seen.csv");
        assertThat(first).containsKeys("checks/mean-level.json", "trials/mean-level-osier-0-1.json");
        Map<String, String> second = unzip(export(as(LEAD), again));
        assertThat(second.keySet()).isEqualTo(first.keySet());
        first.forEach((path, text) -> assertThat(second.get(path)).as(path).isEqualTo(text));
        JsonNode evidence = evidence(again);
        assertThat(of(evidence.at("/parts/0/candidates"), candidate(evidence, "Osier"))
                        .path("worksAfterRepair")
                        .asInt())
                .isEqualTo(1);
    }

    /** What a rater tried and said of one answer, and what it came to after the round was closed, comes back too. */
    @Test
    public void aStudyThatIsOverComesInAgainWithWhatRatersTried() {
        String study = copyOfTheDemo();
        as(LEAD).post("/api/studies/" + study + "/round/close", Map.of("reason", "Enough is graded."));
        byte[] out = export(as(LEAD), study);

        ApiClient.Response again = as(LEAD).upload("/api/studies/archive?again=true", out);

        assertThat(again.status()).as(again.body()).isEqualTo(200);
        assertThat(evidence(again.json().path("studyId").asString()).path("answers"))
                .hasSameSizeAs(evidence(study).path("answers"));
    }

    private String refused(java.util.function.Consumer<Map<String, byte[]>> change) {
        Map<String, byte[]> files = byHand();
        TriedStudy.shown("never").andThen(change).accept(files);
        ApiClient.Response response = as(LEAD).upload("/api/studies/archive?again=true", zip(files));
        assertThat(response.status()).isEqualTo(400);
        return response.body();
    }

    @Test
    public void evidenceThatCannotBeIsRefused() {
        assertThat(refused(TriedStudy.edited("checks/mean-level.json", c -> c.replace("answer.sh\"", "../x\""))))
                .contains("checks.csv");
        assertThat(refused(TriedStudy.edited("checks/mean-level.json", c -> c.replace("\"run\"", "\"ran\""))))
                .contains("checks.csv");
        assertThat(refused(TriedStudy.edited("trials/teasel.json", t -> t.replaceFirst("PASSED", "CRASHED"))))
                .contains("says as a whole");
        assertThat(refused(TriedStudy.edited("trials.csv", t -> t.replace("mean-level-osier,0", "mean-level-osier,2"))))
                .contains("a reply that the answer has");
        assertThat(refused(TriedStudy.edited("trials.csv", t -> t.replace("mean-level-osier", "flat-line-osier"))))
                .contains("a prompt that has a check");
        assertThat(refused(files -> files.put("trials/osier.json", bytes("{\"summary\":null}"))))
                .contains("trials.csv");
    }
}
