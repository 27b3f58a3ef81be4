package org.mossbank.server.calibration;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;
import static org.mossbank.server.StudyInTheMaking.list;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.assertj.core.data.Offset;
import org.mossbank.server.Bodies;
import org.mossbank.server.ServerTest;
import org.mossbank.server.StudyInTheMaking;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** What raters calibrated by is kept with its levels, and teaches the raters of another study. */
public class ReferenceAnswersTest extends ServerTest {
    private static final List<String> RATERS = List.of("bram", "juri", "sana");
    private static final String CALIBRATION = "/calibrations/1";

    private StudyInTheMaking first;
    private Map<String, String> bankPrompts;

    private static List<String> promptIds(StudyInTheMaking study, String title) {
        return list(study.get("/prompts")).stream()
                .filter(p -> p.at("/content/title").asString().startsWith(title))
                .map(p -> p.path("id").asString())
                .toList();
    }

    private void grade(StudyInTheMaking study, int level) {
        for (String rater : RATERS) {
            sheets(as(rater), study.id()).stream()
                    .filter(s ->
                            s.path("sentAt").isMissingNode() || s.path("sentAt").isNull())
                    .forEach(s -> gradeAndSend(as(rater), s.path("id").asString(), level));
        }
    }

    private static void say(StudyInTheMaking study, int place, String source, int level, String reason) {
        study.put(
                CALIBRATION + "/answers/" + place + "/levels/correctness/" + source,
                Map.of("level", level, "reason", reason));
    }

    /** Two prompts with two answers each; the first three have levels, one of them two. */
    @BeforeClass
    public void keep() {
        first = StudyInTheMaking.ready(as(LEAD)).ofOthersPrompts();
        first.post("/calibrations", Map.of("promptIds", promptIds(first, "First")));
        assertThat(as(LEAD).post(first.path + CALIBRATION + "/keep", Map.of()).problem())
                .isEqualTo("not-ready");
        grade(first, 2);
        assertThat(as(LEAD).post(first.path + CALIBRATION + "/keep", Map.of()).body())
                .contains("No answer has a level yet");
        say(first, 1, "REFERENCE", 4, "Right, and Osierhold says why.");
        say(first, 2, "REFERENCE", 3, "So we thought.");
        say(first, 2, "SETTLED", 1, "It misses the cause.");
        say(first, 3, "SETTLED", 0, "It answers something else.");
        assertThat(as("bram").post(first.path + CALIBRATION + "/keep", Map.of()).status())
                .isEqualTo(403);
        JsonNode kept = first.post(CALIBRATION + "/keep", Map.of());
        assertThat(list(kept))
                .extracting(
                        k -> k.path("version").asInt(), k -> k.path("answers").asInt())
                .containsExactly(tuple(1, 2), tuple(1, 1));
        bankPrompts = new HashMap<>();
        list(first.get("/prompts")).stream()
                .filter(p -> p.has("bank") && !p.path("bank").isNull())
                .forEach(p -> bankPrompts.put(
                        p.at("/content/title").asString(),
                        p.at("/bank/bankPromptId").asString()));
        assertThat(bankPrompts).hasSize(2);
    }

    private JsonNode take(StudyInTheMaking study, String title, String kind) {
        return study.post(
                "/prompts/from-bank",
                Map.of(
                        "bankPromptId", bankPrompts.get(title),
                        "version", 1,
                        "kindId", study.kind(kind)));
    }

    /** With nothing of its own to calibrate by. */
    private StudyInTheMaking other() {
        StudyInTheMaking study = StudyInTheMaking.ready(as(LEAD)).ofOthersPrompts();
        take(study, "First of debugging", "debugging");
        take(study, "First of review", "review");
        return study;
    }

    private static List<String> taken(StudyInTheMaking study) {
        return list(study.get("/specimens")).stream()
                .map(s -> s.path("promptId").asString())
                .distinct()
                .toList();
    }

    @Test
    public void theBankTellsWhatAPromptBringsAlong() {
        JsonNode entry = list(as(LEAD).get("/api/bank").json()).stream()
                .filter(e -> e.path("bankPromptId").asString().equals(bankPrompts.get("First of debugging")))
                .findFirst()
                .orElseThrow();
        assertThat(entry.path("specimens").asInt()).isEqualTo(2);
        JsonNode version = as(LEAD).get("/api/bank/" + bankPrompts.get("First of debugging"))
                .json()
                .at("/versions/0");
        assertThat(version.at("/specimens/0/beginning").asString()).startsWith("Because of");
        assertThat(version.toString())
                .as("a reason names nobody")
                .doesNotContain("Osierhold")
                .contains("It misses the cause.")
                .doesNotContain("So we thought.");
        // The same once more is no other version, and nor is the prompt alone, as it was.
        assertThat(first.post(CALIBRATION + "/keep", Map.of()).at("/0/version").asInt())
                .isEqualTo(1);
        assertThat(first.post(
                                "/prompts/"
                                        + promptIds(first, "First of debugging").get(0) + "/keep",
                                Map.of())
                        .at("/bank/number")
                        .asInt())
                .isEqualTo(1);
    }

    @Test
    public void othersCalibrateByItAgainstTheLevelsThatCameAlong() {
        StudyInTheMaking study = other();
        assertThat(list(study.get("/specimens"))).hasSize(3);
        assertThat(as("bram").get(study.path + "/specimens").status()).isEqualTo(403);
        assertThat(list(study.get("/answers"))).as("they are no candidate's").hasSize(8);
        List<String> own = taken(study);
        assertThat(as(LEAD).post(study.path + "/calibrations", Map.of("promptIds", own))
                        .body())
                .as("one answer alone says little")
                .contains("fewer than two answers");
        // A candidate's answer beside the one that came along.
        String candidate = study.get("/candidates").get(0).path("id").asString();
        String alone = promptIds(study, "First of review").stream()
                .filter(own::contains)
                .findFirst()
                .orElseThrow();
        study.post("/answers", Bodies.answer(alone, candidate, "Because of nothing."));
        study.post("/calibrations", Map.of("promptIds", own));
        JsonNode before = study.get(CALIBRATION);
        assertThat(before.path("answers")).hasSize(4);
        assertThat(list(before.path("answers")).stream()
                        .map(a -> a.at("/cells/0/reference"))
                        .filter(JsonNode::isNumber)
                        .map(JsonNode::asInt))
                .containsExactlyInAnyOrder(4, 1, 0);
        for (String rater : RATERS) {
            assertThat(sheets(as(rater), study.id()))
                    .hasSize(2)
                    .allSatisfy(sheet -> assertThat(as(rater)
                                    .get("/api/sheets/" + sheet.path("id").asString())
                                    .body())
                            .as("a rater reads them as any other")
                            .contains("Because of")
                            .doesNotContain("specimen"));
        }
        roundTrip(study);
        grade(study, 1);
        JsonNode bram = as("bram").get(study.path + CALIBRATION).json();
        // By hand: 1 where it should be 4, 1 and 0, of a scale to 4: (-75 + 0 + 25) / 3.
        assertThat(bram.at("/distances/0/fromReference/before/above").asDouble())
                .isCloseTo(-50.0 / 3, Offset.offset(1e-9));
        assertThat(bram.at("/distances/0/fromReference/before/grades").asInt()).isEqualTo(3);
        roundTrip(study);
        Map<String, Object> plan = new HashMap<>(Bodies.plan(3, 0, false));
        plan.put("despite", "We talked it over.");
        study.post("/round", plan);
        grade(study, 3);
        assertThat(study.get("/agreement").path("sheets").asInt())
                .as("four prompts by three raters, and nothing that came along")
                .isEqualTo(12);
        roundTrip(study);
    }

    private void roundTrip(StudyInTheMaking study) {
        byte[] out = export(as(LEAD), study.id());
        String again = as(LEAD).upload("/api/studies/archive?again=true", out)
                .json()
                .path("studyId")
                .asString();
        assertThat(unzip(export(as(LEAD), again))).isEqualTo(unzip(out));
    }

    /** It was masked where it comes from, and there this name was nobody's. */
    @Test
    public void namesOfThisStudyAreMaskedInIt() throws Exception {
        StudyInTheMaking study = other();
        List<String> own = taken(study);
        String rewritten = list(study.get("/specimens")).get(0).path("id").asString();
        for (String sql : List.of(
                "update answer set text = 'Teaselworth would say: because.' where id = '%s'".formatted(rewritten),
                "update specimen_level set highest_level = 5 where answer_id = '%s'".formatted(rewritten))) {
            try (var connection = DATABASE.connect();
                    var statement = connection.createStatement()) {
                statement.executeUpdate(sql);
            }
        }
        study.post(
                "/answers",
                Bodies.answer(
                        promptIds(study, "First of review").stream()
                                .filter(own::contains)
                                .findFirst()
                                .orElseThrow(),
                        study.get("/candidates").get(0).path("id").asString(),
                        "Because of nothing."));
        study.post("/calibrations", Map.of("promptIds", own));
        assertThat(list(study.get("/specimens"))).anySatisfy(s -> {
            assertThat(s.path("text").asString()).isEqualTo("[masked] would say: because.");
        });
        assertThat(list(study.get(CALIBRATION).path("answers")).stream()
                        .map(a -> a.at("/cells/0/reference"))
                        .filter(JsonNode::isNumber))
                .as("a level of another scale is no level of this one")
                .hasSize(2);
    }

    @Test
    public void theyGoWithTheirPrompt() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        String prompt =
                take(study, "First of debugging", "debugging").path("id").asString();
        assertThat(list(study.get("/specimens"))).hasSize(2);
        assertThat(as(LEAD).delete(study.path + "/prompts/" + prompt).status()).isEqualTo(204);
        assertThat(list(study.get("/specimens"))).isEmpty();
    }
}
