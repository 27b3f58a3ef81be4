package org.mossbank.server.grading;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.mossbank.server.ServerTest;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

public class DeskTest extends ServerTest {
    private String study;
    private ApiClient rater;
    private String sheet;
    private JsonNode view;
    private String cell;

    @BeforeMethod
    public void openASheet() {
        study = bringIn();
        rater = as(RATER);
        sheet = sheets(rater, study).get(0).path("id").asString();
        view = rater.get("/api/sheets/" + sheet).json();
        cell = gradePath(sheet, view.at("/answers/0"), view.at("/answers/0/grades/0"));
    }

    private JsonNode gradeNow() {
        return rater.get("/api/sheets/" + sheet).json().at("/answers/0/grades/0");
    }

    @Test
    public void aGradeIsThereAfterwardsWithItsRevision() {
        assertThat(rater.put(cell, grade(0, 3)).json().path("revision").asInt()).isEqualTo(1);
        assertThat(gradeNow().path("level").asInt()).isEqualTo(3);
        assertThat(rater.put(cell, grade(1, 4)).json().path("revision").asInt()).isEqualTo(2);
        assertThat(sheets(rater, study).get(0).path("made").asInt()).isEqualTo(1);
    }

    @Test
    public void sendingAChangeTwiceIsTheSameAsOnce() {
        Map<String, Object> change = grade(0, 3);
        assertThat(rater.put(cell, change).json().path("revision").asInt()).isEqualTo(1);
        rater.put(cell, grade(1, 1));
        ApiClient.Response repeat = rater.put(cell, change);
        assertThat(repeat.status()).isEqualTo(200);
        assertThat(gradeNow().path("level").asInt())
                .as("the later change stands")
                .isEqualTo(1);
    }

    /** One window's answer was lost, another window went on from it: the first is told so, and not given the other's revision. */
    @Test
    public void aRepeatedChangeIsToldItsOwnRevisionAndWhatStandsNow() {
        Map<String, Object> change = grade(0, 3);
        rater.put(cell, change);
        assertThat(rater.put(cell, change).json().has("now"))
                .as("nothing came after it")
                .isFalse();
        rater.put(cell, grade(1, 1));

        JsonNode repeat = rater.put(cell, change).json();

        assertThat(repeat.path("revision").asInt()).isEqualTo(1);
        assertThat(repeat.at("/now/level").asInt()).isEqualTo(1);
        assertThat(repeat.at("/now/revision").asInt()).isEqualTo(2);
        assertThat(rater.put(cell, grade(1, 4)).problem())
                .as("what the first window does next on its own revision")
                .isEqualTo("changed-elsewhere");
    }

    @Test
    public void whatAPageDoesForOnePersonIsNotDoneByAnother() {
        ApiClient other = freshly("juri");
        String own = rater.get("/api/session").json().at("/account/id").asString();
        other.header("X-Mossbank-Account", own);

        ApiClient.Response refused = other.put(cell, grade(0, 3));

        assertThat(refused.status()).isEqualTo(409);
        assertThat(refused.problem()).isEqualTo("other-account");
        assertThat(gradeNow().has("level")).isFalse();
    }

    /** Forty raters' changes wait for a row of their study, and another study's go on. */
    @Test
    public void aLockInOneStudyStopsNoOther() throws Exception {
        String elsewhere = bringIn();
        String otherSheet = sheets(rater, elsewhere).get(0).path("id").asString();
        JsonNode other = rater.get("/api/sheets/" + otherSheet).json();
        String otherCell = gradePath(otherSheet, other.at("/answers/0"), other.at("/answers/0/grades/0"));
        try (Connection connection = DATABASE.connect()) {
            connection.setAutoCommit(false);
            try (PreparedStatement lock =
                    connection.prepareStatement("select 1 from round where study_id = ?::uuid for update")) {
                lock.setString(1, study);
                lock.executeQuery();
            }
            List<java.util.concurrent.CompletableFuture<Integer>> waiting = java.util.stream.IntStream.range(0, 40)
                    .mapToObj(i -> java.util.concurrent.CompletableFuture.supplyAsync(
                            () -> rater.put(cell, grade(0, 3)).status(), command -> new Thread(command).start()))
                    .toList();
            for (int i = 0; i < 10; i++) {
                assertThat(rater.put(otherCell, grade(i, i % 2)).status()).isEqualTo(200);
            }
            connection.rollback();
            List<Integer> statuses = waiting.stream()
                    .map(java.util.concurrent.CompletableFuture::join)
                    .toList();
            assertThat(statuses)
                    .as("made, asked to wait, or made by another of them")
                    .containsAnyOf(200, 503, 409);
            assertThat(statuses).doesNotContain(500);
        }
    }

    @Test
    public void anOldWindowOverwritesNothing() {
        rater.put(cell, grade(0, 3));
        ApiClient.Response stale = rater.put(cell, grade(0, 1));
        assertThat(stale.status()).isEqualTo(409);
        assertThat(stale.problem()).isEqualTo("changed-elsewhere");
        assertThat(stale.json().at("/current/level").asInt()).isEqualTo(3);
        assertThat(gradeNow().path("level").asInt()).isEqualTo(3);
    }

    @Test
    public void notApplicableAndTakenBackAreMarksOfTheirOwn() {
        Map<String, Object> none = new HashMap<>(grade(0, 0));
        none.remove("level");
        none.put("notApplicable", true);
        assertThat(rater.put(cell, none).status()).isEqualTo(200);
        assertThat(gradeNow().path("notApplicable").asBoolean()).isTrue();
        none.put("changeId", UUID.randomUUID().toString());
        none.put("baseRevision", 1);
        none.put("notApplicable", false);
        assertThat(rater.put(cell, none).status()).isEqualTo(200);
        assertThat(gradeNow().has("level")).isFalse();
        assertThat(gradeNow().path("notApplicable").asBoolean()).isFalse();
    }

    @DataProvider
    public static Object[][] badGrades() {
        return new Object[][] {
            {"above the scale", Map.of("level", 5, "notApplicable", false), "level"},
            {"below the scale", Map.of("level", -1, "notApplicable", false), "level"},
            {"level and not applicable", Map.of("level", 2, "notApplicable", true), "notApplicable"},
        };
    }

    @Test(dataProvider = "badGrades")
    public void refusesGradesOutsideTheScale(String name, Map<String, Object> mark, String field) {
        Map<String, Object> change = new HashMap<>(mark);
        change.put("changeId", UUID.randomUUID().toString());
        change.put("baseRevision", 0);
        ApiClient.Response response = rater.put(cell, change);
        assertThat(response.status()).isEqualTo(400);
        assertThat(response.problem()).isEqualTo("invalid-request");
        assertThat(response.json().at("/errors/0/field").asString()).isEqualTo(field);
        assertThat(gradeNow().has("level")).isFalse();
    }

    @Test
    public void refusesMalformedBodies() {
        assertThat(rater.raw("PUT", cell, "{").problem()).isEqualTo("malformed-request");
        ApiClient.Response lacking = rater.raw("PUT", cell, "{\"baseRevision\": 0, \"notApplicable\": false}");
        assertThat(lacking.problem()).isEqualTo("invalid-request");
        assertThat(lacking.json().at("/errors/0/field").asString()).isEqualTo("changeId");
        ApiClient.Response wrongType = rater.raw("PUT", cell, "{\"baseRevision\": \"x\"}");
        assertThat(wrongType.json().at("/errors/0/field").asString()).isEqualTo("baseRevision");
        assertThat(rater.raw("PUT", cell, "{\"changeId\": 5, \"surprise\": true}")
                        .status())
                .isEqualTo(400);
        assertThat(rater.get("/api/sheets/not-an-id").status()).isEqualTo(400);
    }

    @Test
    public void aReasonIsKeptAndCheckedLikeAGrade() {
        String path =
                "/api/sheets/" + sheet + "/answers/" + view.at("/answers/1/id").asString() + "/reason";
        String hostile = "<script>alert(1)</script> " + "é".repeat(10);
        Map<String, Object> change =
                Map.of("changeId", UUID.randomUUID().toString(), "baseRevision", 0, "text", hostile);
        assertThat(rater.put(path, change).json().path("revision").asInt()).isEqualTo(1);
        assertThat(rater.get("/api/sheets/" + sheet)
                        .json()
                        .at("/answers/1/reason")
                        .asString())
                .isEqualTo(hostile);
        Map<String, Object> stale = Map.of("changeId", UUID.randomUUID().toString(), "baseRevision", 0, "text", "b");
        assertThat(rater.put(path, stale).json().at("/current/text").asString()).isEqualTo(hostile);
        Map<String, Object> tooLong =
                Map.of("changeId", UUID.randomUUID().toString(), "baseRevision", 1, "text", "x".repeat(4001));
        assertThat(rater.put(path, tooLong).json().at("/errors/0/field").asString())
                .isEqualTo("text");
        Map<String, Object> nul = Map.of("changeId", UUID.randomUUID().toString(), "baseRevision", 1, "text", "a\0b");
        assertThat(rater.put(path, nul).status()).isEqualTo(400);
    }

    @Test
    public void onlyACompleteSheetCanBeSentIn() {
        ApiClient.Response early = rater.post("/api/sheets/" + sheet + "/send", Map.of());
        assertThat(early.status()).isEqualTo(409);
        assertThat(early.problem()).isEqualTo("sheet-incomplete");
        assertThat(early.json().path("errors").size()).isEqualTo(4);
        gradeAndSend(rater, sheet, 3);
        String next = rater.post("/api/sheets/" + sheet + "/send", Map.of())
                .json()
                .path("nextSheetId")
                .asString();
        assertThat(next).isEqualTo(sheets(rater, study).get(1).path("id").asString());
    }

    @Test
    public void aSentSheetStaysAsItIsUntilTakenBack() {
        gradeAndSend(rater, sheet, 3);
        assertThat(rater.put(cell, grade(1, 1)).problem()).isEqualTo("sheet-sent");
        assertThat(rater.post("/api/sheets/" + sheet + "/take-back", Map.of()).status())
                .isEqualTo(204);
        assertThat(rater.put(cell, grade(1, 1)).status()).isEqualTo(200);
        JsonNode progress = as(LEAD).get("/api/studies/" + study + "/agreement").json();
        assertThat(progress.path("sentSheets").asInt()).isZero();
    }

    @Test
    public void nothingChangesAfterTheRoundIsClosed() {
        as(LEAD).post("/api/studies/" + study + "/round/close", Map.of("reason", "Enough is graded."));
        assertThat(rater.put(cell, grade(0, 3)).problem()).isEqualTo("round-closed");
        assertThat(rater.post("/api/sheets/" + sheet + "/send", Map.of()).problem())
                .isEqualTo("round-closed");
        assertThat(rater.get("/api/sheets/" + sheet).json().path("roundClosed").asBoolean())
                .isTrue();
    }

    @Test
    public void everyChangeLeavesATraceThatCannotBeRemoved() throws SQLException {
        rater.put(cell, grade(0, 3));
        rater.put(cell, grade(1, 1));
        try (Connection connection = DATABASE.connect();
                PreparedStatement trace =
                        connection.prepareStatement("select value::json ->> 'level' from grading_change"
                                + " where sheet_answer_id = ? and part = 'GRADE' order by revision")) {
            trace.setObject(1, UUID.fromString(view.at("/answers/0/id").asString()));
            ResultSet rows = trace.executeQuery();
            rows.next();
            assertThat(rows.getInt(1)).isEqualTo(3);
            rows.next();
            assertThat(rows.getInt(1)).isEqualTo(1);
            org.assertj.core.api.Assertions.assertThatThrownBy(
                            () -> connection.createStatement().execute("delete from grading_change"))
                    .hasMessageContaining("append-only");
        }
    }

    @Test
    public void aCellOfAnotherSheetIsNotFound() {
        String otherSheet = sheets(rater, study).get(1).path("id").asString();
        JsonNode otherAnswer = rater.get("/api/sheets/" + otherSheet).json().at("/answers/0");
        assertThat(rater.put(gradePath(sheet, otherAnswer, otherAnswer.at("/grades/0")), grade(0, 1))
                        .status())
                .isEqualTo(404);
    }

    @Test
    public void writersOfOneCellTakeTurns() {
        List<Integer> statuses = java.util.stream.IntStream.range(0, 12)
                .parallel()
                .mapToObj(i -> rater.put(cell, grade(0, i % 5)).status())
                .toList();
        assertThat(statuses).filteredOn(s -> s == 200).hasSize(1);
        assertThat(statuses).filteredOn(s -> s == 409).hasSize(11);
    }
}
