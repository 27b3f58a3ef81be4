package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;
import java.util.zip.GZIPInputStream;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.ServerProcess;
import org.mossbank.testkit.TestDatabase;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** A database that an earlier server wrote, with the demo study under way, is taken over as it is. */
public class UpgradeTest {
    private static final Path ROOT = Path.of(System.getProperty("mossbank.root"));
    private static final String PASSWORD = "tide and lantern";

    /** What must not change, whatever is added beside it. */
    private static final Map<String, String> KEPT = Map.of(
            "grades", "select sheet_answer_id, criterion_id, level, not_applicable, revision from grade",
            "history", "select sheet_answer_id, part, item, change_id, revision, value::text from grading_change",
            "reasons", "select id, reason from sheet_answer",
            "remarks", "select id, stance, trait, words from remark",
            "answers", "select id, key, text from answer",
            "people", "select id, sign_in_name, display_name, password_hash from account");

    /** A digest of each, over its rows in the order of their texts. */
    private static Map<String, String> kept(TestDatabase database) throws SQLException {
        Map<String, String> digests = new LinkedHashMap<>();
        try (Connection connection = database.connect();
                Statement statement = connection.createStatement()) {
            for (Map.Entry<String, String> part : KEPT.entrySet()) {
                try (ResultSet row = statement.executeQuery(
                        "select count(*) || ' ' || md5(coalesce(string_agg(t::text, ';' order by t::text), '')) from ("
                                + part.getValue() + ") t")) {
                    row.next();
                    digests.put(part.getKey(), row.getString(1));
                }
            }
        }
        return digests;
    }

    private static TestDatabase writtenByAnEarlierServer() throws IOException, SQLException {
        TestDatabase database = TestDatabase.create();
        try (InputStream file = UpgradeTest.class.getResourceAsStream("/upgrade/demo-at-version-20.sql.gz");
                InputStream script = new GZIPInputStream(Objects.requireNonNull(file));
                Connection connection = database.connect();
                Statement statement = connection.createStatement()) {
            statement.execute(new String(script.readAllBytes(), StandardCharsets.UTF_8));
        }
        return database;
    }

    /** With time, also killed again and again while it takes the database over. */
    @Test
    public void everythingIsThereAfterwards() throws Exception {
        TestDatabase database = writtenByAnEarlierServer();
        Map<String, String> before = kept(database);
        assertThat(before.get("grades")).doesNotStartWith("0 ");
        if (Boolean.getBoolean("mossbank.long")) {
            for (int seconds = 3; seconds <= 12; seconds++) {
                ServerProcess.killWhileStarting(ROOT, database, Duration.ofSeconds(seconds));
                assertThat(kept(database)).isEqualTo(before);
            }
        }

        try (ServerProcess server = ServerProcess.start(ROOT, database, ServerProcess.AMONG_MANY)) {
            assertThat(kept(database)).isEqualTo(before);
            ApiClient lead = ApiClient.signedIn(server.address(), "orla", PASSWORD);
            for (JsonNode study : lead.get("/api/studies").json()) {
                String path = "/api/studies/" + study.path("id").asString();
                for (String part : new String[] {"/steps", "/agreement", "/recommendation", "/oversight", "/archive"}) {
                    assertThat(lead.get(path + part).status()).as(path + part).isLessThan(500);
                }
            }
            ApiClient rater = ApiClient.signedIn(server.address(), "juri", PASSWORD);
            for (JsonNode sheet : rater.get("/api/sheets").json()) {
                assertThat(rater.get("/api/sheets/" + sheet.path("id").asString())
                                .status())
                        .isEqualTo(200);
            }
        }
    }
}
