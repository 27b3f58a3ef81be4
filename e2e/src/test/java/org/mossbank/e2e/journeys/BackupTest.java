package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Map;
import java.util.TreeSet;
import java.util.function.UnaryOperator;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.QuickStart;
import org.mossbank.testkit.ServerProcess;
import org.mossbank.testkit.TestDatabase;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** A backup that is taken while people grade is all of one moment, and comes back elsewhere. */
public class BackupTest {
    private static final Path ROOT = Path.of(System.getProperty("mossbank.root"));
    private static final String CHANGES = "select change_id::text from grading_change";

    private Path backup;
    private TestDatabase graded;
    private TreeSet<String> before;

    private static ScriptRun mossbank(TestDatabase database, String... arguments) {
        return ScriptRun.of(ROOT, database.environment(), arguments);
    }

    private static TreeSet<String> rows(TestDatabase database, String query) throws SQLException {
        TreeSet<String> rows = new TreeSet<>();
        try (Connection connection = database.connect();
                Statement statement = connection.createStatement();
                ResultSet found = statement.executeQuery(query)) {
            while (found.next()) {
                rows.add(found.getString(1));
            }
        }
        return rows;
    }

    @BeforeClass
    public void takeABackupWhilePeopleGrade() throws Exception {
        backup = Files.createTempDirectory("mossbank-backup").resolve("harbour.backup");
        graded = QuickStart.of(ROOT).databaseWithDemo();
        GradesUnderWay grades = new GradesUnderWay();
        try (ServerProcess server = ServerProcess.startDemo(ROOT, graded, ServerProcess.AMONG_MANY)) {
            grades.begin(server.address());
            grades.awaitEnough();
            before = rows(graded, CHANGES);
            ScriptRun ended = mossbank(graded, "backup", backup.toString());
            assertThat(ended.status()).as(ended.said()).isZero();
        }
        grades.awaitEnd();
    }

    @AfterClass(alwaysRun = true)
    public void removeIt() throws IOException {
        Files.deleteIfExists(backup);
        Files.deleteIfExists(manifest());
    }

    private Path manifest() {
        return backup.resolveSibling(backup.getFileName() + ".json");
    }

    @Test
    public void whatWasAcknowledgedBeforeItIsInIt() throws Exception {
        TestDatabase elsewhere = TestDatabase.create();
        ScriptRun ended = mossbank(elsewhere, "restore", backup.toString());
        assertThat(ended.status()).as(ended.said()).isZero();

        TreeSet<String> restored = rows(elsewhere, CHANGES);
        assertThat(before).isNotEmpty();
        assertThat(restored).containsAll(before);
        assertThat(rows(graded, CHANGES)).as("nothing that was not there").containsAll(restored);
        assertThat(rows(
                        elsewhere,
                        "select g.sheet_answer_id || ' ' || g.criterion_id from grade g where g.revision <> (select max(c.revision)"
                                + " from grading_change c where c.sheet_answer_id = g.sheet_answer_id"
                                + " and c.part = 'GRADE' and c.item = g.criterion_id::text)"))
                .as("grades and their history are of the same moment")
                .isEmpty();

        try (ServerProcess server = ServerProcess.start(ROOT, elsewhere, ServerProcess.AMONG_MANY)) {
            ApiClient rater = ApiClient.signedIn(server.address(), "juri", "tide and lantern");
            assertThat(rater.get("/api/sheets").json()).isNotEmpty();
            ScriptRun connected = mossbank(elsewhere, "restore", "--over", backup.toString());
            assertThat(connected.said()).contains("stop the server first");
        }

        assertThat(mossbank(elsewhere, "restore", backup.toString()).said()).contains("--over replaces all of it");
        ScriptRun over = mossbank(elsewhere, "restore", "--over", backup.toString());
        assertThat(over.status()).as(over.said()).isZero();
        assertThat(rows(elsewhere, CHANGES)).isEqualTo(restored);
    }

    /** A backup that is older than a deletion does not undo it. */
    @Test
    public void aStudyThatWentForGoodDoesNotComeBack() throws Exception {
        TestDatabase elsewhere = TestDatabase.create();
        assertThat(mossbank(elsewhere, "restore", backup.toString()).status()).isZero();
        String study = rows(elsewhere, "select id::text from study order by created_at limit 1")
                .first();
        try (Connection connection = elsewhere.connect();
                Statement statement = connection.createStatement()) {
            statement.execute("update study set deleted_at = now(), deleted_by = 'orla' where id = '" + study + "'");
            statement.execute("select delete_study('" + study + "')");
        }

        ScriptRun over = mossbank(elsewhere, "restore", "--over", backup.toString());

        assertThat(over.status()).as(over.said()).isZero();
        assertThat(over.said()).contains("Study " + study + " was deleted for good after this backup");
        assertThat(rows(elsewhere, "select id::text from study")).doesNotContain(study);
        assertThat(rows(elsewhere, "select deleted_by from study_deletion")).containsExactly("orla");
    }

    @Test
    public void itsManifestTellsWhatIsInIt() throws Exception {
        JsonNode told = JsonMapper.shared().readTree(manifest().toFile());
        assertThat(told.path("schema").asString()).matches("\\d{4}");
        assertThat(told.path("keepUntil").asString())
                .isGreaterThan(told.path("takenAt").asString());
        assertThat(told.path("rows").path("grading_change").asInt()).isGreaterThanOrEqualTo(before.size());
        assertThat(told.path("rows").path("account").asInt()).isPositive();
        assertThat(Files.getPosixFilePermissions(backup).toString()).doesNotContain("GROUP", "OTHERS");
    }

    @DataProvider
    public Object[][] refused() {
        UnaryOperator<String> newer = json -> json.replaceFirst("\"schema\": \"\\d+\"", "\"schema\": \"9999\"");
        UnaryOperator<String> other = json -> json.replaceFirst("\"sha256\": \"....", "\"sha256\": \"0000");
        UnaryOperator<String> fewer = json -> json.replaceFirst("\"account\" : \\d+", "\"account\" : 0");
        return new Object[][] {
            {"a newer version", newer, "of a newer version"},
            {"a file that was changed", other, "not copied whole"},
            {"rows that are not there", fewer, "does not hold what the manifest says"},
        };
    }

    @Test(dataProvider = "refused")
    public void whatItIsNotIsRefused(String name, UnaryOperator<String> change, String why) throws Exception {
        Path copy = Files.createTempDirectory("mossbank-backup").resolve("copy");
        Files.copy(backup, copy);
        Files.writeString(copy.resolveSibling("copy.json"), change.apply(Files.readString(manifest())));
        ScriptRun ended = mossbank(TestDatabase.create(), "restore", copy.toString());
        assertThat(ended.status()).as(name).isNotZero();
        assertThat(ended.said()).contains(why);
    }

    @Test
    public void aDatabaseOfSomethingElseIsNotBackedUp() {
        ScriptRun ended = mossbank(
                TestDatabase.create(),
                "backup",
                backup.resolveSibling("nothing").toString());
        assertThat(ended.status()).isNotZero();
        assertThat(ended.said()).contains("not one of Mossbank's");
        assertThat(Map.of("left behind", Files.exists(backup.resolveSibling("nothing.part"))))
                .containsValue(false);
    }
}
