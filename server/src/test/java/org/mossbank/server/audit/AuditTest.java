package org.mossbank.server.audit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.mossbank.server.Bodies;
import org.mossbank.server.ServerTest;
import org.mossbank.server.StudyInTheMaking;
import org.mossbank.server.acts.ActSort;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What was done is written down with who, when and where from, for good. */
public class AuditTest extends ServerTest {
    @Test
    public void everyActIsASortOfItsOwn() {
        assertThat(Arrays.stream(ActSort.values()).map(Enum::name))
                .isSubsetOf(Arrays.stream(AuditSort.values()).map(Enum::name).toList());
    }

    /** What must be written down is of no use unless something fails where it is not. */
    @Test
    public void everySortIsSeenByATest() throws IOException {
        StringBuilder tests = new StringBuilder();
        try (Stream<Path> files = Files.walk(Path.of("src/test/java"))) {
            for (Path file :
                    files.filter(f -> f.toString().endsWith("Test.java")).toList()) {
                tests.append(Files.readString(file));
            }
        }
        assertThat(Arrays.stream(AuditSort.values())
                        .filter(s -> !Pattern.compile("\\b" + s + "\\b")
                                .matcher(tests)
                                .find()))
                .isEmpty();
    }

    @Test
    public void tellsWhoCameInAndWhoWasRefusedAndFromWhere() {
        ApiClient client = nobody();
        client.header("X-Forwarded-For", "192.0.2.77");
        client.post("/api/session", Map.of("name", "sana", "password", "not this one"));
        client.post("/api/session", Map.of("name", "sana", "password", PASSWORD));
        client.delete("/api/session");

        JsonNode events = as(LEAD).get("/api/audit-events?who=sana&limit=3").json();

        assertThat(sorts(events)).containsExactly("SIGNED_OUT", "SIGNED_IN", "SIGN_IN_REFUSED");
        assertThat(events.at("/events/1/address").asString()).isEqualTo("192.0.2.77");
        assertThat(events.toString()).doesNotContain("not this one", PASSWORD);
    }

    @Test
    public void aLeadReadsWhatWasDoneInTheirStudyAndAnAdministratorWithoutItsContent() {
        ApiClient lead = newcomer("audit-lead", true);
        StudyInTheMaking study =
                StudyInTheMaking.begunBy(lead).withClosedBrief().withRubric();
        study.rater("bram");
        lead.get(study.path + "/archive");

        JsonNode own = lead.get(study.path + "/audit-events").json();

        assertThat(sorts(own))
                .containsExactly(
                        "STUDY_EXPORTED",
                        "PERSON_ADDED",
                        "RUBRIC_PUBLISHED",
                        "BRIEF_CLOSED",
                        "RULE_CHANGED",
                        "STUDY_BEGUN");
        assertThat(own.at("/events/1/subject").asString()).isEqualTo("bram, rater");
        assertThat(own.at("/events/5/who").asString()).isEqualTo("audit-lead");
        JsonNode all = as(LEAD).get("/api/audit-events?who=audit-lead&limit=6").json();
        assertThat(sorts(all)).isEqualTo(sorts(own));
        assertThat(all.at("/events/1").has("subject")).isFalse();
        assertThat(lead.get("/api/audit-events").status()).isEqualTo(403);
    }

    @Test
    public void aChangedRuleIsWrittenDownOnce() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        for (String question : List.of("First?", "Second?")) {
            study.put(
                    "/brief",
                    Map.of(
                            "version", study.get("/brief").path("version").asLong(),
                            "title", "Which?",
                            "brief", Bodies.brief(question, false)));
        }
        assertThat(sorts(as(LEAD).get(study.path + "/audit-events").json()))
                .containsExactly("RULE_CHANGED", "STUDY_BEGUN");
    }

    @Test
    public void goesOnPageByPageAndComesWholeAsLines() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD)).withClosedBrief();
        study.rater("bram");
        String path = study.path + "/audit-events";

        JsonNode first = as(LEAD).get(path + "?limit=2").json();
        JsonNode rest = as(LEAD).get(
                        path + "?limit=2&before=" + first.path("next").asLong())
                .json();
        ApiClient.Response lines = as(LEAD).get(path + "/lines");

        assertThat(sorts(first)).containsExactly("PERSON_ADDED", "BRIEF_CLOSED");
        assertThat(sorts(rest)).contains("STUDY_BEGUN");
        assertThat(rest.has("next")).isFalse();
        assertThat(lines.raw().headers().firstValue("Content-Type").orElse("")).startsWith("application/jsonl");
        assertThat(lines.body()
                        .lines()
                        .map(l -> JsonMapper.shared().readTree(l).path("sort").asString()))
                .startsWith("PERSON_ADDED", "BRIEF_CLOSED")
                .endsWith("STUDY_BEGUN");
        assertThat(sorts(as(LEAD).get(path + "?sort=RECORD_EXPORTED").json())).hasSize(1);
    }

    @Test
    public void wrongQueriesAreRefused() {
        assertThat(as(LEAD).get("/api/audit-events?limit=5000").status()).isEqualTo(400);
        assertThat(as(LEAD).get("/api/audit-events?sort=NONE").status()).isEqualTo(400);
    }

    @DataProvider
    public static Object[][] waysToChangeIt() {
        return new Object[][] {
            {"update audit_event set who = 'somebody'"},
            {"delete from audit_event"},
            {"delete from audit_event where study_id is not null"},
            {"truncate audit_event"}
        };
    }

    @Test(dataProvider = "waysToChangeIt")
    public void notEvenTheOwnerOfTheTablesChangesIt(String statement) throws SQLException {
        as(LEAD).get("/api/audit-events");
        try (Connection connection = DATABASE.connect();
                Statement sql = connection.createStatement()) {
            assertThatThrownBy(() -> sql.execute(statement))
                    .isInstanceOf(SQLException.class)
                    .hasMessageContaining("only ever added to");
        }
    }
}
