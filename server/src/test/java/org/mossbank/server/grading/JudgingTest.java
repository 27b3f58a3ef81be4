package org.mossbank.server.grading;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.Consumer;
import org.mossbank.server.ServerTest;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** What a rater says of answers beside a level, and what must be there before a sheet is sent in. */
public class JudgingTest extends ServerTest {
    private static final String DIFF = "Here.\n\n```diff\n--- a/gauge.py\n+++ b/gauge.py\n@@ -1,2 +1,2 @@\n"
            + " def level(x):\n-    return x\n+    return x / 2\n```\n";

    private String study;
    private ApiClient rater;
    private String sheet;
    private JsonNode view;
    private String answer;

    /** With key points, traits, code, a reference answer, and what the brief asks. */
    private static Consumer<Map<String, byte[]>> asking(String terms) {
        return files -> {
            withTable(
                            "key-points",
                            "prompt,stance,text\nmean-level,must-contain,a\nmean-level,must-not,b\n"
                                    + "spring-tide,must-contain,c\nlost-hour,must-contain,d\nflat-line,must-contain,e\n")
                    .accept(files);
            withTable("traits", "criterion,text\ncorrectness,missed an edge case\n")
                    .accept(files);
            withTable("starting-code", "prompt,path,file\nmean-level,gauge.py,text/gauge.py\n")
                    .accept(files);
            files.put("text/gauge.py", bytes("def level(x):\n    return x\n"));
            files.put("text/mean-level-osier.md", bytes(DIFF));
            files.put("text/reference.md", bytes("It is the mean of a lunar month."));
            String prompts = new String(files.get("prompts.csv"), StandardCharsets.UTF_8)
                    .replace("prompt,kind,title,file", "prompt,kind,title,file,reference_file")
                    .replaceAll("(?m)\\.md$", ".md,")
                    .replace("text/mean-level.md,", "text/mean-level.md,text/reference.md");
            files.put("prompts.csv", bytes(prompts));
            String head = new String(files.get("study.json"), StandardCharsets.UTF_8);
            files.put("study.json", bytes(head.replaceFirst("\\{", "{" + terms)));
        };
    }

    @BeforeMethod
    public void openASheet() {
        open("");
    }

    private void open(String terms) {
        study = bringIn(asking(terms));
        rater = as(RATER);
        sheet = sheets(rater, study).stream()
                .filter(s -> s.path("promptTitle").asString().startsWith("What is the mean"))
                .findFirst()
                .orElseThrow()
                .path("id")
                .asString();
        view = rater.get("/api/sheets/" + sheet).json();
        answer = view.at("/answers/0/id").asString();
    }

    private String on(String part) {
        return "/api/sheets/" + sheet + "/answers/" + answer + part;
    }

    private JsonNode now() {
        return rater.get("/api/sheets/" + sheet).json().at("/answers/0");
    }

    @DataProvider
    public static Object[][] cells() {
        return new Object[][] {
            {"/works", Map.of("works", "AFTER_REPAIR"), "/works/works"},
            {"/preference", Map.of("place", 2), "/preference/place"},
            {"/coverage/1", Map.of("verdict", "CONTRADICTED"), "/coverage/0/verdict"},
            {"/reason", Map.of("text", "So."), "/reason"},
        };
    }

    /** Each cell keeps what was set, refuses an old window, and takes the same change twice as once. */
    @Test(dataProvider = "cells")
    public void aCellIsKeptLikeAGrade(String part, Map<String, Object> value, String where) {
        Map<String, Object> first = change(0, value);

        assertThat(rater.put(on(part), first).json().path("revision").asInt()).isEqualTo(1);
        assertThat(rater.put(on(part), first).json().path("revision").asInt()).isEqualTo(1);
        ApiClient.Response stale = rater.put(on(part), change(0, value));

        assertThat(now().at(where).asString())
                .isEqualTo(value.values().iterator().next().toString());
        assertThat(stale.problem()).isEqualTo("changed-elsewhere");
        assertThat(stale.json().at("/current/revision").asInt()).isEqualTo(1);
    }

    @Test
    public void aCellCanBeEmptiedAgain() {
        rater.put(on("/works"), change(0, Map.of("works", "NOT")));
        rater.put(on("/coverage/0"), change(0, Map.of("verdict", "MISSED")));

        rater.put(on("/works"), change(1, Map.of()));
        rater.put(on("/coverage/0"), change(1, Map.of()));

        assertThat(now().at("/works/works").isMissingNode()).isTrue();
        assertThat(now().at("/coverage/0/verdict").isMissingNode()).isTrue();
    }

    @Test
    public void aChangeIdIsForOneCellOnly() {
        Map<String, Object> works = change(0, Map.of("works", "AS_IS"));
        rater.put(on("/works"), works);
        Map<String, Object> borrowed = new HashMap<>(Map.of("place", 1));
        borrowed.put("changeId", works.get("changeId"));
        borrowed.put("baseRevision", 0);

        ApiClient.Response response = rater.put(on("/preference"), borrowed);

        assertThat(response.status()).isEqualTo(400);
        assertThat(response.json().at("/errors/0/field").asString()).isEqualTo("changeId");
        assertThat(now().at("/preference/place").isMissingNode()).isTrue();
    }

    @Test
    public void aKeyPointThatIsNotThereIsNotFound() {
        assertThat(rater.put(on("/coverage/2"), change(0, Map.of("verdict", "COVERED")))
                        .status())
                .isEqualTo(404);
        assertThat(rater.put(on("/coverage/-1"), change(0, Map.of("verdict", "COVERED")))
                        .status())
                .isEqualTo(404);
    }

    private static Map<String, Object> remark(String trait, String words) {
        return Map.of(
                "remark",
                Map.of(
                        "stance",
                        "FAULT",
                        "trait",
                        trait,
                        "words",
                        words,
                        "lines",
                        Map.of("part", "AFTER", "path", "gauge.py", "from", 2, "to", 2, "quote", "return x / 2")));
    }

    @Test
    public void aRemarkIsWrittenChangedAndRemoved() {
        String path = on("/remarks/" + UUID.randomUUID());

        rater.put(path, change(0, remark("missed an edge case", "Halved.")));
        rater.put(path, change(1, remark("", "Halved, and why?")));

        JsonNode kept = now().at("/remarks/0/remark");
        assertThat(kept.path("words").asString()).isEqualTo("Halved, and why?");
        assertThat(kept.at("/lines/path").asString()).isEqualTo("gauge.py");
        rater.put(path, change(2, Map.of()));
        assertThat(now().path("remarks").size()).isZero();
        assertThat(rater.put(path, change(0, remark("", "Again."))).problem())
                .as("an old window does not bring it back")
                .isEqualTo("changed-elsewhere");
    }

    @DataProvider
    public static Object[][] badRemarks() {
        Map<String, Object> backwards = Map.of("part", "TEXT", "from", 5, "to", 2, "quote", "");
        return new Object[][] {
            {"nothing at all", Map.of()},
            {"neither trait nor words", Map.of("stance", "FAULT", "trait", " ", "words", "")},
            {"a trait that the rubric lacks", Map.of("stance", "FAULT", "trait", "ugly", "words", "")},
            {
                "lines that end before they begin",
                Map.of("stance", "CREDIT", "trait", "", "words", "x", "lines", backwards)
            },
            {
                "a line beyond the text",
                Map.of(
                        "stance",
                        "CREDIT",
                        "trait",
                        "",
                        "words",
                        "x",
                        "lines",
                        Map.of("part", "TEXT", "from", 400, "to", 500, "quote", ""))
            },
            {
                "a file without a path",
                Map.of(
                        "stance",
                        "CREDIT",
                        "trait",
                        "",
                        "words",
                        "x",
                        "lines",
                        Map.of("part", "FILE", "from", 1, "to", 2, "quote", ""))
            },
            {"an unseen character", Map.of("stance", "CREDIT", "trait", "", "words", "a\0b")},
            {"too many words", Map.of("stance", "CREDIT", "trait", "", "words", "x".repeat(4001))},
        };
    }

    @Test(dataProvider = "badRemarks")
    public void refusesRemarksThatSayNothingOrPointNowhere(String name, Map<String, Object> content) {
        ApiClient.Response response =
                rater.put(on("/remarks/" + UUID.randomUUID()), change(0, Map.of("remark", content)));
        assertThat(response.status()).as(name).isEqualTo(400);
        assertThat(now().path("remarks").size()).isZero();
    }

    @Test
    public void aRemarkStaysOnItsAnswer() {
        String id = "/remarks/" + UUID.randomUUID();
        rater.put(on(id), change(0, remark("", "Here.")));
        answer = view.at("/answers/1/id").asString();
        assertThat(rater.put(on(id), change(1, remark("", "There."))).status()).isEqualTo(404);
    }

    @Test
    public void confidenceComesWithAGradeOnly() {
        String cell = gradePath(sheet, view.at("/answers/0"), view.at("/answers/0/grades/0"));
        Map<String, Object> unsure = change(0, Map.of("level", 2, "notApplicable", false, "confidence", "UNSURE"));

        assertThat(rater.put(cell, unsure).status()).isEqualTo(200);
        assertThat(now().at("/grades/0/confidence").asString()).isEqualTo("UNSURE");
        ApiClient.Response alone = rater.put(cell, change(1, Map.of("notApplicable", false, "confidence", "SURE")));
        assertThat(alone.json().at("/errors/0/field").asString()).isEqualTo("confidence");
    }

    private void gradeAll(int level) {
        for (JsonNode one : rater.get("/api/sheets/" + sheet).json().path("answers")) {
            for (JsonNode grade : one.path("grades")) {
                rater.put(
                        gradePath(sheet, one, grade),
                        grade(grade.path("revision").asLong(), level));
            }
        }
    }

    private List<String> missing() {
        ApiClient.Response sent = rater.post("/api/sheets/" + sheet + "/send", Map.of());
        List<String> fields = new ArrayList<>();
        sent.json().path("errors").forEach(e -> fields.add(e.path("field").asString()));
        return fields;
    }

    @Test
    public void anEndOfTheScaleNeedsAReasonOrARemarkInWords() {
        gradeAll(4);
        String other = view.at("/answers/1/id").asString();
        assertThat(missing()).containsExactlyInAnyOrder(answer + "/reason", other + "/reason");

        rater.put(on("/reason"), change(0, Map.of("text", "All there.")));
        assertThat(missing()).containsExactly(other + "/reason");
        answer = other;
        String id = "/remarks/" + UUID.randomUUID();
        rater.put(on(id), change(0, remark("missed an edge case", "")));
        assertThat(missing()).as("a trait alone is no word").containsExactly(other + "/reason");
        rater.put(on(id), change(1, remark("missed an edge case", "At zero.")));
        assertThat(missing()).isEmpty();
    }

    @Test
    public void theMiddleOfTheScaleNeedsNoReasonUnlessTheBriefSaysSo() {
        gradeAll(2);
        assertThat(missing()).isEmpty();

        open("\"reasons\": \"always\",");
        gradeAll(2);
        assertThat(missing()).hasSize(2).allMatch(f -> f.endsWith("/reason"));
    }

    @Test
    public void notApplicableNeedsAReason() {
        gradeAll(2);
        String cell = gradePath(sheet, view.at("/answers/0"), view.at("/answers/0/grades/1"));
        rater.put(cell, change(1, Map.of("notApplicable", true)));
        assertThat(missing()).containsExactly(answer + "/reason");
    }

    @Test
    public void theReferenceAnswerComesAfterTheSheetAndOnlyIfTheBriefAllows() {
        assertThat(view.path("afterwards").asBoolean()).isFalse();
        gradeAndSend(rater, sheet, 2);
        assertThat(rater.get("/api/sheets/" + sheet).body()).doesNotContain("lunar month");

        open("\"showsReference\": true,");
        assertThat(view.path("afterwards").asBoolean()).isTrue();
        assertThat(rater.get("/api/sheets/" + sheet).body()).doesNotContain("lunar month");
        gradeAndSend(rater, sheet, 2);
        assertThat(rater.get("/api/sheets/" + sheet)
                        .json()
                        .at("/prompt/referenceAnswer")
                        .asString())
                .contains("lunar month");
        rater.post("/api/sheets/" + sheet + "/take-back", Map.of());
        assertThat(rater.get("/api/sheets/" + sheet).body()).doesNotContain("lunar month");
    }

    @Test
    public void aGuessComesAfterTheSheetAndOnlyIfTheBriefAsks() {
        assertThat(rater.put(on("/guess"), change(0, Map.of("choice", 0, "noIdea", false)))
                        .problem())
                .isEqualTo("not-ready");

        open("\"asksSourceGuess\": true,");
        assertThat(rater.get("/api/sheets/" + sheet).body()).doesNotContain("Osier");
        assertThat(rater.put(on("/guess"), change(0, Map.of("choice", 0, "noIdea", false)))
                        .problem())
                .isEqualTo("not-ready");
        gradeAndSend(rater, sheet, 2);
        assertThat(rater.get("/api/sheets/" + sheet).json().path("guessChoices").values().stream()
                        .map(JsonNode::asString))
                .containsExactly("Osier", "Teasel");
        assertThat(rater.put(on("/guess"), change(0, Map.of("choice", 2, "noIdea", false)))
                        .status())
                .isEqualTo(400);
        assertThat(rater.put(on("/guess"), change(0, Map.of("choice", 1, "noIdea", false)))
                        .status())
                .isEqualTo(200);
        assertThat(now().at("/guess/choice").asInt()).isEqualTo(1);
        answer = view.at("/answers/1/id").asString();
        rater.put(on("/guess"), change(0, Map.of("noIdea", true)));
        JsonNode guesses =
                as(LEAD).get("/api/studies/" + study + "/oversight").json().path("guesses");
        assertThat(guesses.path("asked").asInt()).isEqualTo(2);
        assertThat(guesses.path("noIdea").asInt()).isEqualTo(1);
        assertThat(guesses.path("byChance").asDouble()).as("one of two").isEqualTo(0.5);
    }

    @Test
    public void theCodeOfAnAnswerIsShownAsChangesAndFiles() {
        List<JsonNode> codes = new ArrayList<>();
        for (JsonNode one : view.path("answers")) {
            answer = one.path("id").asString();
            assertThat(one.path("hasCode").asBoolean()).isTrue();
            codes.add(rater.get(on("/code")).json());
        }
        JsonNode changed = codes.stream()
                .filter(c -> c.path("changes").size() > 0)
                .findFirst()
                .orElseThrow();
        assertThat(changed.at("/changes/0/path").asString()).isEqualTo("gauge.py");
        assertThat(changed.at("/files/0/text").asString()).isEqualTo("def level(x):\n    return x / 2\n");
        assertThat(codes)
                .filteredOn(c -> c.path("changes").isEmpty())
                .singleElement()
                .satisfies(c -> assertThat(c.at("/files/0/path").asString()).isEqualTo("Block 1, java"));
        String first = view.at("/answers/0/id").asString();
        String second = view.at("/answers/1/id").asString();
        JsonNode compared = rater.get("/api/sheets/" + sheet + "/comparison?first=" + first + "&second=" + second)
                .json();
        assertThat(compared.at("/0/path").asString()).isEqualTo("gauge.py");
        assertThat(rater.get("/api/sheets/" + sheet + "/comparison?first=" + first + "&second=" + UUID.randomUUID())
                        .status())
                .isEqualTo(404);
    }

    /** A window tells its sum again and again, and two windows add up. */
    @Test
    public void activeTimeIsForTheLeadAloneAndNeverCountedTwice() {
        String window = UUID.randomUUID().toString();
        for (int ms : new int[] {5_000, 9_000, 7_000}) {
            tell(window, ms);
        }
        tell(UUID.randomUUID().toString(), 1_000);

        assertThat(rater.get("/api/sheets/" + sheet).body())
                .doesNotContain("10000")
                .doesNotContain("activeMs");
        JsonNode oversight =
                as(LEAD).get("/api/studies/" + study + "/oversight").json();
        assertThat(oversight.path("raters").values().stream()
                        .mapToLong(r -> r.path("activeMs").asLong(0))
                        .sum())
                .isEqualTo(10_000);
        assertThat(rater.put(
                                "/api/sheets/" + sheet + "/time",
                                Map.of(
                                        "windowId",
                                        window,
                                        "answers",
                                        List.of(Map.of(
                                                "answerId", UUID.randomUUID().toString(), "ms", 5))))
                        .status())
                .isEqualTo(404);
    }

    private void tell(String window, int ms) {
        assertThat(rater.put(
                                "/api/sheets/" + sheet + "/time",
                                Map.of("windowId", window, "answers", List.of(Map.of("answerId", answer, "ms", ms))))
                        .status())
                .isEqualTo(204);
    }

    @Test
    public void everyPartHasAHistory() throws SQLException {
        rater.put(on("/works"), change(0, Map.of("works", "NOT")));
        rater.put(on("/works"), change(1, Map.of("works", "AS_IS")));
        rater.put(on("/remarks/" + UUID.randomUUID()), change(0, remark("", "Hm.")));
        gradeAndSend(rater, sheet, 2);
        rater.post("/api/sheets/" + sheet + "/take-back", Map.of());

        try (Connection connection = DATABASE.connect();
                PreparedStatement trace = connection.prepareStatement(
                        "select part || coalesce(value::json ->> 'works', '') from grading_change"
                                + " where sheet_answer_id = ? and part in ('WORKS', 'REMARK') order by part, revision");
                PreparedStatement events = connection.prepareStatement(
                        "select sort from sheet_event where sheet_id = ? order by made_at")) {
            trace.setObject(1, UUID.fromString(answer));
            assertThat(texts(trace)).containsExactly("REMARK", "WORKSNOT", "WORKSAS_IS");
            events.setObject(1, UUID.fromString(sheet));
            assertThat(texts(events)).containsExactly("SENT", "TAKEN_BACK");
        }
    }

    private static List<String> texts(PreparedStatement query) throws SQLException {
        List<String> texts = new ArrayList<>();
        try (ResultSet rows = query.executeQuery()) {
            while (rows.next()) {
                texts.add(rows.getString(1));
            }
        }
        return texts;
    }
}
