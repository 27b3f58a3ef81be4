package org.mossbank.server.acts;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.mossbank.server.ServerTest;
import org.mossbank.server.SmallStudy;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Nothing that can change an outcome is silent: who, when, why, and what it changed. */
public class RecordOfActsTest extends ServerTest {
    private static final Map<String, String> WHY = Map.of("reason", "Its wording had two readings.");

    private JsonNode acts(String study) {
        return as(LEAD).get("/api/studies/" + study + "/acts").json();
    }

    private static String prompt(ApiClient lead, String path) {
        return path + "/prompts/"
                + lead.get(path + "/prompts").json().at("/0/id").asString();
    }

    /** A study whose raters have graded all, teasel above osier. */
    private String graded() {
        return bringIn(SmallStudy.graded(SmallStudy.osier(1, 3)));
    }

    /** Each act that is possible once raters grade, in the list, the archive and the database. */
    @Test
    public void eachActIsKeptWithWhoWhenWhyAndWhatItChanged() throws Exception {
        ApiClient lead = as(LEAD);
        String study = graded();
        String path = "/api/studies/" + study;
        String prompt = prompt(lead, path);
        String sheet = lead.get(path + "/grading")
                .json()
                .at("/raters/0/sheets/0/sheetId")
                .asString();
        JsonNode candidate = lead.get(path + "/candidates").json().get(0);

        lead.put(prompt + "/fault", WHY);
        lead.post(prompt + "/fault/take-back", WHY);
        lead.post(path + "/sheets/" + sheet + "/withdraw", WHY);
        lead.post(path + "/sheets/" + sheet + "/give-back", WHY);
        lead.put(
                path + "/candidates/" + candidate.path("id").asString() + "/considerations",
                Map.of(
                        "version", candidate.path("version").asLong(),
                        "considerations", List.of(Map.of("sign", "RULES_OUT", "text", "Its maker is gone.")),
                        "reason", "It was in the news."));
        lead.post(path + "/brief/reopen", WHY);
        lead.post(path + "/brief/close", Map.of());
        lead.post(path + "/round/close", Map.of("reason", ""));
        lead.post(path + "/round/reopen", WHY);
        lead.post(path + "/round/close", Map.of("reason", "Nothing came of it."));

        JsonNode acts = acts(study);
        assertThat(sorts(acts))
                .containsExactly(
                        "PROMPT_SET_ASIDE",
                        "PROMPT_TAKEN_UP",
                        "SHEET_WITHDRAWN",
                        "SHEET_GIVEN_BACK",
                        "CONSIDERATIONS_CHANGED",
                        "BRIEF_REOPENED",
                        "BRIEF_CLOSED",
                        "ROUND_CLOSED",
                        "ROUND_REOPENED",
                        "ROUND_CLOSED");
        for (JsonNode act : acts) {
            assertThat(act.path("by").asString()).isEqualTo("Orla Fennick");
            assertThat(act.path("namesKnown").asBoolean()).isTrue();
            assertThat(act.at("/before/headline").asString("")).isNotBlank();
            assertThat(act.at("/after/headline").asString("")).isNotBlank();
        }
        assertThat(acts.at("/0/reason").asString()).isEqualTo(WHY.get("reason"));
        assertThat(acts.at("/4/before/outcome").asString()).isNotEqualTo("WITHHELD");
        assertThat(acts.at("/4/after/outcome").asString())
                .as("of two candidates one is ruled out")
                .isEqualTo("WITHHELD");
        assertThat(acts.at("/7/subject").asString()).isEqualTo("8 of 8 sheets sent in");

        assertThat(count("select count(*) from act where study_id = ?", study)).isEqualTo(10);
        assertThat(unzip(export(lead, study)).get("acts.csv").lines().count()).isEqualTo(11);
        String again = lead.upload("/api/studies/archive?again=true", export(lead, study))
                .json()
                .path("studyId")
                .asString();
        assertThat(acts(again)).isEqualTo(acts);
    }

    @Test
    public void aSheetThatIsHandedOverIsKeptWithBothNames() {
        ApiClient lead = as(LEAD);
        String study = bringIn(
                withTable("sheets", "rater,prompt,place\nbram,mean-level,1\nbram,spring-tide,2\njuri,lost-hour,1\n"));
        JsonNode grading = lead.get("/api/studies/" + study + "/grading").json();
        JsonNode bram = rater(grading, "bram");
        JsonNode juri = rater(grading, "juri");
        lead.post(
                "/api/studies/" + study + "/sheets/"
                        + bram.at("/sheets/0/sheetId").asString() + "/hand-over",
                Map.of("raterId", juri.path("raterId").asString(), "reason", "Bram is away."));
        JsonNode act = acts(study).get(0);
        assertThat(act.path("sort").asString()).isEqualTo("SHEET_HANDED_OVER");
        assertThat(act.path("subject").asString())
                .contains(bram.path("name").asString(), juri.path("name").asString());
    }

    private static JsonNode rater(JsonNode grading, String signInName) {
        return grading.path("raters")
                .valueStream()
                .filter(r -> r.path("signInName").asString().equals(signInName))
                .findFirst()
                .orElseThrow();
    }

    @Test
    public void noOutcomeIsShownWhileRatersGrade() {
        String study = graded();
        ApiClient lead = as(LEAD);
        lead.put(prompt(lead, "/api/studies/" + study) + "/fault", WHY);
        assertThat(acts(study).get(0).has("before")
                        && !acts(study).get(0).path("before").isNull())
                .isFalse();
        recommendation(lead, study);
        assertThat(acts(study).at("/0/before/headline").asString("")).isNotBlank();
    }

    @DataProvider
    public static Object[][] closedActs() {
        return new Object[][] {
            {"PUT", "{prompt}/fault"},
            {"POST", "{prompt}/fault/take-back"},
            {"POST", "{sheet}/withdraw"},
            {"POST", "{sheet}/give-back"},
            {"POST", "{study}/brief/reopen"},
            {"PUT", "{candidate}/considerations"},
        };
    }

    @Test(dataProvider = "closedActs")
    public void onceTheRoundIsClosedItMustBeOpenedAgainFirst(String method, String address) {
        ApiClient lead = as(LEAD);
        String study = bringIn();
        String path = "/api/studies/" + study;
        recommendation(lead, study);
        JsonNode candidate = lead.get(path + "/candidates").json().get(0);
        String at = address.replace("{prompt}", prompt(lead, path))
                .replace(
                        "{sheet}",
                        path + "/sheets/"
                                + lead.get(path + "/grading")
                                        .json()
                                        .at("/raters/0/sheets/0/sheetId")
                                        .asString())
                .replace("{study}", path)
                .replace(
                        "{candidate}",
                        path + "/candidates/" + candidate.path("id").asString());
        Object body = at.endsWith("considerations")
                ? Map.of("version", candidate.path("version").asLong(), "considerations", List.of(), "reason", "x")
                : WHY;
        int kept = acts(study).size();
        assertThat((method.equals("PUT") ? lead.put(at, body) : lead.post(at, body)).problem())
                .isEqualTo("round-closed");
        assertThat(acts(study).size()).isEqualTo(kept);
    }

    @Test
    public void closingEarlyAndConsideringWhileRatersGradeAskWhy() {
        ApiClient lead = as(LEAD);
        String path = "/api/studies/" + bringIn();
        JsonNode candidate = lead.get(path + "/candidates").json().get(0);
        assertThat(lead.post(path + "/round/close", Map.of("reason", " ")).status())
                .isEqualTo(400);
        assertThat(lead.put(
                                path + "/candidates/" + candidate.path("id").asString() + "/considerations",
                                Map.of(
                                        "version", candidate.path("version").asLong(),
                                        "considerations", List.of(),
                                        "reason", ""))
                        .status())
                .isEqualTo(400);
    }

    /** What raters could have seen stays seen, and is told. */
    @Test
    public void sheetsSentAfterNamesWereOpenAreCounted() {
        ApiClient lead = as(LEAD);
        String study = bringIn();
        assertThat(recommendation(lead, study).at("/blinding/sentKnowing").asInt())
                .isZero();
        lead.post("/api/studies/" + study + "/round/reopen", WHY);
        gradeAndSend(as(RATER), sheets(as(RATER), study).get(0).path("id").asString(), 3);
        assertThat(recommendation(lead, study).at("/blinding/sentKnowing").asInt())
                .isEqualTo(1);
    }

    @DataProvider
    public static Object[][] tampering() {
        return new Object[][] {
            {"update act set reason = 'nicer' where study_id = ?"},
            {"delete from act where study_id = ?"},
            {"delete from act_outcome where act_id in (select id from act where study_id = ?)"},
            {"update act_outcome set headline = 'nicer' where act_id in (select id from act where study_id = ?)"},
        };
    }

    @Test(dataProvider = "tampering")
    public void theDatabaseAddsAndNeverChanges(String statement) {
        ApiClient lead = as(LEAD);
        String study = bringIn();
        lead.put(prompt(lead, "/api/studies/" + study) + "/fault", WHY);
        assertThatThrownBy(() -> change(statement, study)).hasMessageContaining("only ever added to");
        assertThatThrownBy(() -> change("truncate act cascade", null)).hasMessageContaining("only ever added to");
        assertThat(acts(study).size()).isEqualTo(1);
    }

    @Test
    public void actsGoWithTheirWholeStudyAloneAndThatStays() throws Exception {
        ApiClient lead = as(LEAD);
        String study = bringIn();
        lead.put(prompt(lead, "/api/studies/" + study) + "/fault", WHY);
        change("select forget_acts(?, 'Orla Fennick')", study);
        assertThat(acts(study).size()).isZero();
        assertThat(count(
                        "select count(*) from study_deletion where study_id = ? and deleted_by = 'Orla Fennick'",
                        study))
                .isEqualTo(1);
        assertThatThrownBy(() -> change("delete from study_deletion where study_id = ?", study))
                .hasMessageContaining("only ever added to");
    }

    private static void change(String statement, String study) throws SQLException {
        try (Connection connection = DATABASE.connect();
                PreparedStatement prepared = connection.prepareStatement(statement)) {
            if (study != null) {
                prepared.setObject(1, UUID.fromString(study));
            }
            prepared.execute();
        }
    }

    private static int count(String query, String study) throws SQLException {
        try (Connection connection = DATABASE.connect();
                PreparedStatement prepared = connection.prepareStatement(query)) {
            prepared.setObject(1, UUID.fromString(study));
            try (ResultSet found = prepared.executeQuery()) {
                found.next();
                return found.getInt(1);
            }
        }
    }

    @Test
    public void actsOfOldArchivesAreReadWithWhatTheySay() {
        String study = bringIn(withTable(
                "acts",
                "sort,subject,reason,by,at,names_known,before,headline_before,after,headline_after\n"
                        + "prompt-set-aside,Mean level,Two readings.,Orla Fennick,2026-03-11T10:00:00Z,true,"
                        + "recommended,We recommend Osier.,undecided,Undecided.\n"));
        recommendation(as(LEAD), study);
        JsonNode act = acts(study).get(0);
        assertThat(act.at("/before/outcome").asString()).isEqualTo("RECOMMENDED");
        assertThat(act.at("/after/headline").asString()).isEqualTo("Undecided.");
        assertThat(new String(bytes(act.toString()), StandardCharsets.UTF_8)).contains("Two readings.");
    }
}
