package org.mossbank.server.calibration;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mossbank.server.StudyInTheMaking.list;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.assertj.core.data.Offset;
import org.mossbank.server.Bodies;
import org.mossbank.server.RubricDraft;
import org.mossbank.server.ServerTest;
import org.mossbank.server.StudyInTheMaking;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Raters learn the ruler together before the round, and what they give then counts nowhere. */
public class CalibrationTest extends ServerTest {
    private static final List<String> RATERS = List.of("bram", "juri", "sana");

    private StudyInTheMaking calibrating() {
        StudyInTheMaking study = StudyInTheMaking.ready(as(LEAD)).ofOthersPrompts();
        study.post("/calibrations", Map.of("promptIds", firstPrompts(study)));
        return study;
    }

    /** The first of each kind. */
    private static List<String> firstPrompts(StudyInTheMaking study) {
        return list(study.get("/prompts")).stream()
                .filter(p -> p.at("/content/title").asString().startsWith("First"))
                .map(p -> p.path("id").asString())
                .toList();
    }

    private static String calibration(StudyInTheMaking study) {
        return study.path + "/calibrations/1";
    }

    private void grade(StudyInTheMaking study, String rater, int level) {
        sheets(as(rater), study.id()).stream()
                .filter(s ->
                        s.path("sentAt").isMissingNode() || s.path("sentAt").isNull())
                .forEach(s -> gradeAndSend(as(rater), s.path("id").asString(), level));
    }

    /** All levels alike but those of one rater. */
    private StudyInTheMaking parted() {
        StudyInTheMaking study = calibrating();
        grade(study, "bram", 3);
        grade(study, "juri", 3);
        grade(study, "sana", 1);
        return study;
    }

    private static Map<String, Object> says(String words) {
        return new HashMap<>(Map.of("id", UUID.randomUUID().toString(), "words", words));
    }

    @Test
    public void everybodyGradesTheSameFirstAndItCountsNowhere() {
        StudyInTheMaking study = calibrating();
        for (String rater : RATERS) {
            assertThat(sheets(as(rater), study.id())).as(rater).hasSize(2);
        }
        grade(study, "bram", 3);
        JsonNode plan = study.post("/plan", Bodies.plan(2, 0, false));
        assertThat(plan.path("answers").asInt())
                .as("two prompts of two answers are left")
                .isEqualTo(4);
        assertThat(study.get("/agreement").path("sheets").asInt(-1)).isZero();
        assertThat(study.get("/grading").path("openedAt").isMissingNode()
                        || study.get("/grading").path("openedAt").isNull())
                .isTrue();
    }

    @Test
    public void nobodySeesWhatOthersGaveBeforeTheLastIsIn() {
        StudyInTheMaking study = calibrating();
        grade(study, "bram", 3);
        grade(study, "juri", 3);
        for (String one : List.of(LEAD, "bram", "sana")) {
            JsonNode page = as(one).get(calibration(study)).json();
            assertThat(page.at("/summary/open").asBoolean()).as(one).isFalse();
            assertThat(page.path("agreement")).as(one).isEmpty();
            assertThat(page.path("raters")).as(one).isEmpty();
            assertThat(page.path("distances")).as(one).isEmpty();
        }
        assertThat(as(LEAD).get(calibration(study) + "/answers/1").json().path("raters"))
                .isEmpty();
        for (String one : List.of("bram", "sana")) {
            assertThat(as(one).get(calibration(study)).json().path("answers"))
                    .as(one)
                    .isEmpty();
            assertThat(as(one).get(calibration(study) + "/answers/1").status())
                    .as(one)
                    .isEqualTo(404);
        }
        assertThat(as(LEAD).get(calibration(study))
                        .json()
                        .at("/waitsFor/0/name")
                        .asString())
                .isEqualTo("Sana Tillery");
        assertThat(as("bram").get(calibration(study)).json().path("waitsFor"))
                .as("raters are not told who")
                .isEmpty();
        grade(study, "sana", 1);
        assertThat(as("sana").get(calibration(study)).json().at("/summary/open").asBoolean())
                .isTrue();
        assertThat(as("bram").get(calibration(study) + "/answers/1").json().path("raters"))
                .hasSize(3);
        assertThat(as(OUTSIDER).get(calibration(study)).status()).isEqualTo(404);
        assertThat(nobody().get(calibration(study)).status()).isEqualTo(401);
    }

    /** Else it would no longer be what was given before anybody saw another's. */
    @Test
    public void whatWasGivenStaysOnceOthersAreSeen() {
        StudyInTheMaking study = calibrating();
        grade(study, "bram", 3);
        String sheet = sheets(as("bram"), study.id()).get(0).path("id").asString();
        assertThat(as("bram")
                        .post("/api/sheets/" + sheet + "/take-back", Map.of())
                        .status())
                .isEqualTo(204);
        grade(study, "bram", 2);
        grade(study, "juri", 3);
        grade(study, "sana", 1);
        assertThat(as("bram")
                        .post("/api/sheets/" + sheet + "/take-back", Map.of())
                        .problem())
                .isEqualTo("too-late");
    }

    @Test
    public void theyTalkAboutACellOrALine() {
        StudyInTheMaking study = parted();
        String answer = calibration(study) + "/answers/1";
        Map<String, Object> ofLine = says("This line guesses.");
        ofLine.put("criterion", "correctness");
        ofLine.put("lines", Map.of("from", 1, "to", 1));
        JsonNode said = as("juri").post(answer + "/words", ofLine).json();
        assertThat(said.at("/words/0/lines/to").asInt()).isEqualTo(1);
        assertThat(as("juri").post(answer + "/words", ofLine).json().path("words"))
                .as("sent twice, said once")
                .hasSize(1);
        ofLine.put("id", UUID.randomUUID().toString());
        ofLine.put("lines", Map.of("from", 1, "to", 999));
        assertThat(as("juri").post(answer + "/words", ofLine).problem()).isEqualTo("invalid-request");
        Map<String, Object> naming = says("Osierhold would write it so.");
        as(LEAD).post(answer + "/words", naming);
        assertThat(as("juri").get(answer).body()).doesNotContainIgnoringCase("osierhold");
        assertThat(as(LEAD).get(answer).body()).contains("Osierhold");
        JsonNode cell = as("bram").get(calibration(study)).json().at("/answers/0/cells/0");
        assertThat(cell.path("criterion").asString()).isEqualTo("correctness");
        assertThat(cell.path("words").asInt()).isEqualTo(1);
        assertThat(cell.path("distance").asInt()).isEqualTo(2);
    }

    @Test
    public void levelsAreSettledByTheLeadAlone() {
        StudyInTheMaking study = parted();
        String level = calibration(study) + "/answers/1/levels/correctness/";
        Map<String, Object> three = Map.of("level", 3, "reason", "It is right but for its name.");
        assertThat(as("bram").put(level + "SETTLED", three).status()).isEqualTo(403);
        assertThat(as(LEAD).put(level + "SETTLED", three).status()).isEqualTo(200);
        assertThat(as(LEAD).put(level + "REFERENCE", Map.of("level", 9, "reason", "?"))
                        .problem())
                .isEqualTo("invalid-request");
        JsonNode page = as("sana").get(calibration(study)).json();
        assertThat(page.at("/answers/0/cells/0/settled").asInt()).isEqualTo(3);
        assertThat(page.path("distances")).as("a rater sees their own").hasSize(1);
        // By hand: level 1 of a scale to 4 lies half of it below 3.
        assertThat(page.at("/distances/0/fromReference/before/above").asDouble())
                .isCloseTo(-50, Offset.offset(1e-9));
        assertThat(as(LEAD).get(calibration(study)).json().path("distances")).hasSize(3);
        assertThat(as(LEAD).delete(level + "SETTLED").json().path("agreed")).isEmpty();
    }

    /** People who know say it before they see what others gave; raters read it once the talk is open. */
    @Test
    public void aReferenceIsNotedBeforeTheTalk() {
        StudyInTheMaking study = calibrating();
        grade(study, "bram", 3);
        String level = calibration(study) + "/answers/1/levels/correctness/";
        Map<String, Object> four = Map.of("level", 4, "reason", "As two of us wrote it.");
        assertThat(as(LEAD).put(level + "SETTLED", four).problem()).isEqualTo("not-ready");
        JsonNode noted = as(LEAD).put(level + "REFERENCE", four).json();
        assertThat(noted.at("/agreed/0/level").asInt()).isEqualTo(4);
        assertThat(noted.path("raters")).as("still nobody's grades").isEmpty();
        grade(study, "juri", 3);
        grade(study, "sana", 1);
        JsonNode page = as("sana").get(calibration(study)).json();
        assertThat(page.at("/answers/0/cells/0/reference").asInt()).isEqualTo(4);
        // By hand: level 1 of a scale to 4 lies three quarters of it below 4.
        assertThat(page.at("/distances/0/fromReference/before/above").asDouble())
                .isCloseTo(-75, Offset.offset(1e-9));
    }

    @Test
    public void theRoundOpensBelowTheFloorWithAReasonAlone() {
        StudyInTheMaking study = parted();
        assertThat(study.get("/calibrations").at("/0/reached").asBoolean()).isFalse();
        Map<String, Object> plan = new HashMap<>(Bodies.plan(2, 0, false));
        assertThat(study.post("/plan", plan).path("unmet")).isNotEmpty();
        assertThat(as(LEAD).post(study.path + "/round", plan).problem()).isEqualTo("invalid-request");
        plan.put("despite", "Both prompts were odd ones.");
        study.post("/round", plan);
        assertThat(study.get("/acts").toString()).contains("Both prompts were odd ones.");
        for (String rater : RATERS) {
            List<Integer> places = sheets(as(rater), study.id()).stream()
                    .map(s -> s.path("place").asInt())
                    .toList();
            assertThat(places).as(rater).doesNotHaveDuplicates();
        }
        grade(study, "bram", 3);
        grade(study, "juri", 3);
        grade(study, "sana", 3);
        assertThat(study.get("/agreement").path("sheets").asInt())
                .as("two prompts by two raters each; six sheets to calibrate by count nowhere")
                .isEqualTo(4);
        assertThat(study.get("/calibrations").at("/0/stage").asString()).isEqualTo("OVER");
    }

    /** Grades that were given after the talk never count for the floor. */
    @Test
    public void gradedAgainByTheNextVersionBothAreKept() {
        StudyInTheMaking study = parted();
        JsonNode rubric = study.get("/rubric");
        Map<String, Object> proposal = Map.of(
                "id",
                UUID.randomUUID().toString(),
                "criterion",
                "correctness",
                "kindId",
                study.kind("debugging"),
                "level",
                3,
                "words",
                "Right, and the cause is shown.",
                "why",
                "We read 3 in two ways.");
        assertThat(as("juri").post(study.path + "/rubric/proposals", proposal).status())
                .isEqualTo(204);
        assertThat(as("juri").post(study.path + "/rubric/proposals", proposal).status())
                .isEqualTo(204);
        assertThat(as("juri").get(study.path + "/rubric/proposals").status()).isEqualTo(403);
        JsonNode waiting = study.get("/rubric/proposals");
        assertThat(waiting).hasSize(1);
        String id = waiting.at("/0/id").asString();
        study.post("/rubric/proposals/" + id + "/take", Map.of("words", "Right, and the cause is shown."));
        assertThat(as(LEAD).post(study.path + "/rubric/proposals/" + id + "/decline", Map.of())
                        .problem())
                .isEqualTo("not-ready");
        study.post("/rubric/publish", Map.of("note", "What 3 is."));
        assertThat(study.get("/rubric").at("/version/number").asInt())
                .isEqualTo(rubric.at("/version/number").asInt() + 1);
        study.post("/calibrations/1/again", Map.of());
        assertThat(writtenDown(as(LEAD), study.path + "/audit-events"))
                .startsWith("CALIBRATION_AGAIN")
                .contains("CALIBRATION_BEGUN");
        JsonNode again = sheets(as("sana"), study.id()).get(2);
        assertThat(as("sana").get("/api/sheets/" + again.path("id").asString()).body())
                .isNotEmpty();
        for (String rater : RATERS) {
            grade(study, rater, rater.equals("juri") ? 3 : 2);
        }
        JsonNode page = as(LEAD).get(calibration(study)).json();
        assertThat(page.at("/course/again/rubricVersion").asInt()).isEqualTo(2);
        assertThat(page.at("/answers/0/cells/0/levels").toString()).isEqualTo("[3,3,1]");
        assertThat(page.at("/answers/0/cells/0/after").toString()).isEqualTo("[2,3,2]");
        assertThat(page.at("/summary/reached").asBoolean()).isFalse();
        assertThat(as(LEAD).post(study.path + "/calibrations/1/again", Map.of()).problem())
                .isEqualTo("not-ready");
        assertThat(study.post("/plan", Bodies.plan(2, 0, false)).path("unmet")).isNotEmpty();
        roundTrip(study);
    }

    private void roundTrip(StudyInTheMaking study) {
        byte[] first = export(as(LEAD), study.id());
        String other = as(LEAD).upload("/api/studies/archive?again=true", first)
                .json()
                .path("studyId")
                .asString();
        assertThat(unzip(export(as(LEAD), other))).isEqualTo(unzip(first));
        JsonNode page =
                as(LEAD).get("/api/studies/" + other + "/calibrations/1").json();
        assertThat(page.path("agreement").toString())
                .isEqualTo(as(LEAD).get(calibration(study))
                        .json()
                        .path("agreement")
                        .toString());
    }

    @Test
    public void allOfItGoesThroughAnArchiveBeforeTheRoundAndAfter() {
        StudyInTheMaking study = calibrating();
        roundTripOf(study);
        grade(study, "bram", 3);
        grade(study, "juri", 2);
        grade(study, "sana", 1);
        as("juri").post(calibration(study) + "/answers/2/words", says("Look at its first line."));
        as(LEAD).put(
                        calibration(study) + "/answers/2/levels/correctness/SETTLED",
                        Map.of("level", 2, "reason", "Half of it."));
        roundTrip(study);
        Map<String, Object> plan = new HashMap<>(Bodies.plan(2, 0, false));
        plan.put("despite", "We talked it over.");
        study.post("/round", plan);
        roundTrip(study);
    }

    private void roundTripOf(StudyInTheMaking study) {
        byte[] first = export(as(LEAD), study.id());
        String other = as(LEAD).upload("/api/studies/archive?again=true", first)
                .json()
                .path("studyId")
                .asString();
        assertThat(unzip(export(as(LEAD), other))).isEqualTo(unzip(first));
    }

    @Test
    public void whatRatersCalibrateByStaysAsItIs() {
        StudyInTheMaking study = calibrating();
        String prompt = firstPrompts(study).get(0);
        Map<String, Object> write = Map.of(
                "version", 9,
                "kindId", study.kind("debugging"),
                "content", Bodies.prompt("Other", "Other."));
        assertThat(as(LEAD).put(study.path + "/prompts/" + prompt, write).problem())
                .isEqualTo("calibrating");
        assertThat(as(LEAD).delete(study.path + "/prompts/" + prompt).problem()).isEqualTo("calibrating");
        JsonNode answer = list(study.get("/answers")).stream()
                .filter(a -> a.path("promptId").asString().equals(prompt))
                .findFirst()
                .orElseThrow();
        assertThat(as(LEAD).delete(study.path + "/answers/" + answer.path("id").asString())
                        .problem())
                .isEqualTo("calibrating");
        RubricDraft fewerLevels = RubricDraft.of(study);
        fewerLevels
                .criteria()
                .get(0)
                .put(
                        "levels",
                        List.of(
                                Map.of("name", "no", "anchors", List.of()),
                                Map.of("name", "yes", "anchors", List.of())));
        assertThat(fewerLevels.write(study).problem()).isEqualTo("calibrating");
        RubricDraft reworded = RubricDraft.of(study);
        reworded.first().put("question", "Does it do what was asked?");
        assertThat(reworded.write(study).status()).isEqualTo(200);
    }

    /** A round is opened, though raters part, and one more is dealt all that is in it. */
    private static void toveComesInLate(StudyInTheMaking study) {
        Map<String, Object> plan = new HashMap<>(Bodies.plan(2, 0, false));
        plan.put("despite", "We talked it over.");
        study.post("/round", plan);
        study.post("/round/deal", Map.of("raterId", study.rater("tove"), "from", "IN_ADDITION"));
    }

    @Test
    public void whoComesInLateCalibratesFirst() {
        StudyInTheMaking study = parted();
        toveComesInLate(study);
        List<JsonNode> own = sheets(as("tove"), study.id());
        assertThat(own).hasSize(4);
        assertThat(own.subList(0, 2).stream().map(s -> s.path("promptTitle").asString()))
                .allMatch(title -> title.startsWith("First"));
        assertThat(as("tove").get(calibration(study) + "/answers/1").status())
                .as("not before")
                .isEqualTo(404);
        for (JsonNode sheet : own.subList(0, 2)) {
            gradeAndSend(as("tove"), sheet.path("id").asString(), 2);
        }
        assertThat(list(as("tove").get("/api/calibrations").json()).stream()
                        .filter(c -> c.path("studyId").asString().equals(study.id()))
                        .map(c -> c.path("open").asBoolean()))
                .as("the way there stands on the first page")
                .containsExactly(true);
        assertThat(as("tove").get(calibration(study) + "/answers/1").status()).isEqualTo(200);
        JsonNode page = as(LEAD).get(calibration(study)).json();
        assertThat(page.path("distances")).hasSize(4);
        assertThat(page.at("/agreement/0/before").toString())
                .as("what was found before stays")
                .isEqualTo(as("bram")
                        .get(calibration(study))
                        .json()
                        .at("/agreement/0/before")
                        .toString());
    }

    /** What counts nowhere is not waited for where what counts is talked through. */
    @Test
    public void whoeverHasLeftACalibrationForLaterTalksAboutWhatTheyGraded() {
        StudyInTheMaking study = parted();
        toveComesInLate(study);
        RATERS.forEach(rater -> grade(study, rater, 0));
        for (JsonNode sheet : sheets(as("tove"), study.id())) {
            if (sheet.path("calibration").asInt() == 0) {
                gradeAndSend(as("tove"), sheet.path("id").asString(), 4);
            }
        }
        study.post("/splits/widest", Map.of("count", 2));
        assertThat(list(as("tove").get("/api/splits").json().path("splits")).stream()
                        .filter(s -> s.path("studyId").asString().equals(study.id())))
                .hasSize(2);
    }

    private static String person(StudyInTheMaking study, String name) {
        return list(study.get("/people")).stream()
                .filter(p -> p.path("signInName").asString().equals(name))
                .findFirst()
                .orElseThrow()
                .path("accountId")
                .asString();
    }

    /** Whoever has begun nothing leaves as if they had never been there, in an archive too. */
    @Test
    public void theTalkOpensWithoutWhoHasLeft() {
        StudyInTheMaking study = calibrating();
        grade(study, "bram", 3);
        grade(study, "juri", 3);
        assertThat(as(LEAD).delete(study.path + "/raters/" + person(study, "bram"))
                        .problem())
                .as("what he gave has his name")
                .isEqualTo("calibrating");
        assertThat(as(LEAD).delete(study.path + "/raters/" + person(study, "sana"))
                        .status())
                .isEqualTo(204);
        assertThat(as("bram").get(calibration(study)).json().at("/summary/open").asBoolean())
                .isTrue();
        roundTrip(study);
    }

    @Test
    public void theLeadGoesOnWithoutWhoDoesNotSendInWithAReason() {
        StudyInTheMaking study = calibrating();
        grade(study, "bram", 3);
        grade(study, "juri", 3);
        gradeAndSend(
                as("sana"), sheets(as("sana"), study.id()).get(0).path("id").asString(), 2);
        Map<String, String> without = Map.of("raterId", person(study, "sana"), "reason", "She is at sea.");
        assertThat(as("bram").post(calibration(study) + "/without", without).status())
                .isEqualTo(403);
        JsonNode page = study.post("/calibrations/1/without", without);
        assertThat(page.at("/summary/open").asBoolean()).isTrue();
        assertThat(page.path("waitsFor")).isEmpty();
        assertThat(study.get("/acts").toString()).contains("SHEET_WITHDRAWN", "She is at sea.");
        assertThat(as(LEAD).post(calibration(study) + "/without", without).problem())
                .isEqualTo("not-ready");
        roundTrip(study);
    }

    /** A prompt that turned out faulty is waited for no longer. */
    @Test
    public void theTalkOpensOnceWhatIsLeftWasSetAside() {
        StudyInTheMaking study = calibrating();
        grade(study, "bram", 3);
        grade(study, "juri", 3);
        JsonNode sent = sheets(as("sana"), study.id()).get(0);
        gradeAndSend(as("sana"), sent.path("id").asString(), 2);
        String left = list(study.get("/prompts")).stream()
                .filter(p -> firstPrompts(study).contains(p.path("id").asString())
                        && !p.at("/content/title")
                                .asString()
                                .equals(sent.path("promptTitle").asString()))
                .findFirst()
                .orElseThrow()
                .path("id")
                .asString();
        study.put("/prompts/" + left + "/fault", Map.of("reason", "It has two meanings."));
        assertThat(as("bram").get(calibration(study)).json().at("/summary/open").asBoolean())
                .isTrue();
    }

    /** Else a calibration would show who wrote what. */
    @Test
    public void nothingIsLaidBeforeRatersThatIsNotMasked() {
        StudyInTheMaking study = StudyInTheMaking.ready(as(LEAD));
        study.post(
                "/answers",
                Bodies.answer(
                        firstPrompts(study).get(0),
                        study.get("/candidates").at("/0/id").asString(),
                        "As Osierhold I would look at the loop."));
        ApiClient.Response begun =
                as(LEAD).post(study.path + "/calibrations", Map.of("promptIds", firstPrompts(study)));
        assertThat(begun.problem()).isEqualTo("not-ready");
        assertThat(begun.json().path("detail").asString()).contains("Answers: ");
    }

    /** Both gradings are of the same answers. */
    @Test
    public void whatCameInSinceIsNotGradedAgain() {
        StudyInTheMaking study = parted();
        study.post(
                "/answers",
                Bodies.answer(
                        firstPrompts(study).get(0),
                        study.get("/candidates").at("/0/id").asString(),
                        "Because it counts twice."));
        study.post("/calibrations/1/again", Map.of());
        assertThat(as(LEAD).get(calibration(study)).json().path("answers")).hasSize(4);
    }

    @Test
    public void whatIsMissingIsNamedBeforeItBegins() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD)).withClosedBrief();
        String one = study.prompt("debugging", "Alone");
        String two = study.prompt("debugging", "Together");
        ApiClient.Response begun = as(LEAD).post(study.path + "/calibrations", Map.of("promptIds", List.of(one, two)));
        assertThat(begun.problem()).isEqualTo("not-ready");
        assertThat(begun.json().path("detail").asString())
                .contains("Two raters", "“Alone” has fewer than two answers", "not published");
        assertThat(as(LEAD).post(study.path + "/calibrations", Map.of("promptIds", List.of(one)))
                        .problem())
                .isEqualTo("invalid-request");
        assertThat(as(LEAD).post(study.path + "/calibrations", Map.of("promptIds", List.of(one, one)))
                        .problem())
                .isEqualTo("invalid-request");
    }
}
