package org.mossbank.server.grading;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.mossbank.server.ServerTest;
import org.mossbank.server.StudyInTheMaking;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Raters come in while others grade, and get sheets that nobody has begun, or sheets of their own. */
public class DealingTest extends ServerTest {

    /** Four prompts, each graded by two of three raters; a fourth comes in. */
    private static StudyInTheMaking begun(org.mossbank.testkit.ApiClient lead) {
        StudyInTheMaking study = StudyInTheMaking.ready(lead);
        study.open(2, 0, false);
        return study;
    }

    private static String late(StudyInTheMaking study) {
        return study.post("/raters", Map.of("signInName", "tove", "name", "Tove Lindqvest"))
                .path("accountId")
                .asString();
    }

    private static Map<String, String> deal(String rater, String from) {
        return Map.of("raterId", rater, "from", from);
    }

    private static JsonNode raters(StudyInTheMaking study) {
        return study.get("/grading").path("raters");
    }

    private static long held(StudyInTheMaking study, String rater) {
        return raters(study)
                .valueStream()
                .filter(r -> r.path("raterId").asString().equals(rater))
                .flatMap(r -> r.path("sheets").valueStream())
                .filter(s -> !s.has("withdrawn"))
                .count();
    }

    @Test
    public void sheetsThatNobodyHasBegunGoEvenlyToWhoComesInLate() {
        StudyInTheMaking study = begun(as(LEAD));
        String late = late(study);
        assertThat(held(study, late)).isZero();
        JsonNode preview = study.post("/round/deal/preview", deal(late, "UNBEGUN"));
        assertThat(preview.path("sheets").asInt()).as("of eight with three").isEqualTo(2);
        assertThat(held(study, late)).as("nothing is done by looking").isZero();
        JsonNode dealt = study.post("/round/deal", deal(late, "UNBEGUN"));
        assertThat(dealt).isEqualTo(preview);
        assertThat(held(study, late)).isEqualTo(2);
        assertThat(dealt.path("loads")
                        .valueStream()
                        .mapToInt(l -> l.path("after").asInt())
                        .sum())
                .as("no sheet is lost")
                .isEqualTo(8);
        assertThat(dealt.path("fewest").asInt()).isEqualTo(2);
        assertThat(dealt.path("most").asInt()).isEqualTo(2);
        assertThat(study.get("/acts").valueStream().map(a -> a.path("sort").asString()))
                .containsSubsequence("SHEET_HANDED_OVER", "SHEETS_DEALT");
    }

    @Test
    public void inAdditionEachAnswerGetsARaterMoreAndTheyCanGradeThem() {
        StudyInTheMaking study = begun(as(LEAD));
        String late = late(study);
        JsonNode dealt = study.post("/round/deal", deal(late, "IN_ADDITION"));
        assertThat(dealt.path("sheets").asInt()).isEqualTo(4);
        assertThat(dealt.path("fewest").asInt()).isEqualTo(3);
        List<JsonNode> own = sheets(as("tove"), study.id());
        assertThat(own).hasSize(4);
        gradeAndSend(as("tove"), own.get(0).path("id").asString(), 2);
        assertThat(as(LEAD).post(study.path + "/round/deal", deal(late, "IN_ADDITION"))
                        .problem())
                .as("there is none left")
                .isEqualTo("not-ready");
    }

    @Test
    public void whatIsBegunStaysWithWhoBeganIt() {
        StudyInTheMaking study = begun(as(LEAD));
        for (String name : List.of("bram", "juri", "sana")) {
            for (JsonNode sheet : sheets(as(name), study.id())) {
                gradeAndSend(as(name), sheet.path("id").asString(), 2);
            }
        }
        String late = late(study);
        assertThat(study.post("/round/deal/preview", deal(late, "UNBEGUN"))
                        .path("sheets")
                        .asInt())
                .isZero();
        as(LEAD).post(study.path + "/round/close", Map.of("reason", ""));
        assertThat(as(LEAD).post(study.path + "/round/deal", deal(late, "IN_ADDITION"))
                        .problem())
                .isEqualTo("round-closed");
        assertThat(as(LEAD).post(study.path + "/raters", Map.of("signInName", "later", "name", "Later"))
                        .problem())
                .isEqualTo("round-closed");
    }

    /** What is sent in stays; the others share what is not, and nobody gets the same prompt twice. */
    @Test
    public void whoIsTakenOutLeavesTheirOpenSheetsToTheOthers() {
        StudyInTheMaking study = StudyInTheMaking.ready(as(LEAD)).ofOthersPrompts();
        study.open(2, 0, false);
        String bram = raters(study).at("/0/raterId").asString();
        assertThat(raters(study).at("/0/signInName").asString()).isEqualTo("bram");
        List<JsonNode> own = sheets(as("bram"), study.id());
        gradeAndSend(as("bram"), own.get(0).path("id").asString(), 3);
        JsonNode preview = study.post("/round/take-out/preview", Map.of("raterId", bram));
        assertThat(held(study, bram)).as("nothing is done by looking").isEqualTo(own.size());
        JsonNode out = study.post("/round/take-out", Map.of("raterId", bram, "reason", "On leave."));
        assertThat(out).isEqualTo(preview);
        assertThat(out.path("given").asInt() + out.path("withdrawn").asInt()).isEqualTo(own.size() - 1);
        assertThat(out.path("withdrawn").asInt())
                .as("with three raters of whom two have each prompt")
                .isZero();
        assertThat(held(study, bram)).isEqualTo(1);
        assertThat(out.path("fewest").asInt()).isEqualTo(2);
        assertThat(out.path("loads")
                        .valueStream()
                        .mapToInt(l -> l.path("after").asInt())
                        .sum())
                .as("no sheet is lost")
                .isEqualTo(8);
        assertThat(study.get("/acts").toString()).contains("RATER_TAKEN_OUT", "On leave.");
        assertThat(as(LEAD).post(study.path + "/round/take-out", Map.of("raterId", bram, "reason", "Again."))
                        .problem())
                .isEqualTo("not-ready");
        for (String rater : List.of("juri", "sana")) {
            List<String> titles = sheets(as(rater), study.id()).stream()
                    .map(s -> s.path("promptTitle").asString())
                    .toList();
            assertThat(titles).as(rater).doesNotHaveDuplicates();
        }
    }
}
