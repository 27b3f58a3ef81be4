package org.mossbank.server.study.deletion;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.UUID;
import org.mossbank.server.ServerTest;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.study.Studies;
import org.mossbank.testkit.ApiClient;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.dao.DataAccessException;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.transaction.support.TransactionTemplate;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** A study that is deleted: out of sight, brought back, gone. */
public class DeletionTest extends ServerTest {
    /** Rows here are of people, of the server, or of the line that stays. */
    private static final List<String> NOT_OF_A_STUDY = List.of(
            "account",
            "mail_choice",
            "signing_key",
            "sign_in_bucket",
            "spring_session",
            "spring_session_attributes",
            "scheduled_tasks",
            "study_deletion",
            "audit_event",
            "flyway_schema_history");

    @Autowired
    private JdbcTemplate sql;

    @Autowired
    private GoneForGood gone;

    @Autowired
    private Studies studies;

    @Autowired
    private TransactionTemplate transactions;

    private static String title(ApiClient lead, String study) {
        return lead.get("/api/studies/" + study).json().path("title").asString();
    }

    private ApiClient.Response delete(String study) {
        return as(LEAD).post("/api/studies/" + study + "/deletion", Map.of("title", title(as(LEAD), study)));
    }

    /** What people are shown of all their studies at once. */
    private static List<String> lists(ApiClient person) {
        return List.of(
                        "/api/studies",
                        "/api/my-studies",
                        "/api/my-studies?away=true",
                        "/api/sheets",
                        "/api/splits",
                        "/api/calibrations",
                        "/api/read-backs",
                        "/api/reminders",
                        "/api/asked")
                .stream()
                .map(path -> person.get(path).body())
                .toList();
    }

    @Test
    public void isSeenByNobodyAndComesBackAsItWas() {
        String study = copyOfTheDemo();
        String address = "/api/studies/" + study;
        String sheet = sheets(as(RATER), study).get(0).path("id").asString();
        List<String> before = lists(as(RATER));
        String grades = as(LEAD).get(address + "/grading").body();
        assertThat(String.join("", before)).contains(study);

        assertThat(delete(study).status()).isEqualTo(204);

        assertThat(as(LEAD).get(address).status()).isEqualTo(404);
        assertThat(as(RATER).get(address).status()).isEqualTo(404);
        assertThat(as(RATER).get("/api/sheets/" + sheet).status()).isEqualTo(404);
        assertThat(String.join("", lists(as(RATER)))).doesNotContain(study);
        assertThat(String.join("", lists(as(LEAD)))).doesNotContain(study);
        assertThat(standing(as(LEAD), study).path("role").asString()).isEqualTo("LEAD");
        assertThat(standing(as(RATER), study).path("deletedBy").asString()).isEqualTo("Orla Fennick");
        assertThat(standing(newcomer("beside-it", false), study).isMissingNode())
                .isTrue();

        String undo = "/api/deleted-studies/" + study + "/undo";
        assertThat(as(RATER).post(undo, Map.of()).status()).isEqualTo(404);
        assertThat(as(LEAD).post(undo, Map.of()).status()).isEqualTo(204);
        assertThat(lists(as(RATER))).isEqualTo(before);
        assertThat(as(LEAD).get(address + "/grading").body()).isEqualTo(grades);
        assertThat(as(LEAD).post(undo, Map.of()).status()).isEqualTo(404);
        assertThat(as(LEAD).get(address + "/audit-events").json().path("events").values().stream()
                        .map(e -> e.path("sort").asString()))
                .startsWith("STUDY_DELETION_UNDONE", "STUDY_DELETED");
    }

    private static JsonNode standing(ApiClient person, String study) {
        return person.get("/api/deleted-studies").json().values().stream()
                .filter(s -> s.path("id").asString().equals(study))
                .findFirst()
                .orElse(tools.jackson.databind.node.MissingNode.getInstance());
    }

    @Test
    public void asksForTheTitle() {
        String study = bringIn();
        ApiClient.Response refused =
                as(LEAD).post("/api/studies/" + study + "/deletion", Map.of("title", "Some other study"));
        assertThat(refused.problem()).isEqualTo("invalid-request");
        assertThat(refused.json().at("/errors/0/field").asString()).isEqualTo("title");
        assertThat(as(LEAD).get("/api/studies/" + study).status()).isEqualTo(200);
    }

    /** Whoever finds a browser open does not delete. */
    @Test
    public void asksOnceMoreWhoItIs() {
        String study = bringIn();
        ApiClient lead = freshly(LEAD);
        Map<String, String> title = Map.of("title", title(lead, study));
        sql.update("delete from spring_session_attributes where attribute_name = 'mossbank.proved-at'");

        assertThat(lead.post("/api/studies/" + study + "/deletion", title).problem())
                .isEqualTo("proof-needed");
        assertThat(lead.post("/api/account/proof", Map.of("password", "something else"))
                        .status())
                .isEqualTo(400);
        assertThat(lead.post("/api/studies/" + study + "/deletion", title).status())
                .isEqualTo(403);
        assertThat(lead.post("/api/account/proof", Map.of("password", PASSWORD)).status())
                .isEqualTo(204);
        assertThat(lead.post("/api/studies/" + study + "/deletion", title).status())
                .isEqualTo(204);
        as(LEAD).post("/api/account/proof", Map.of("password", PASSWORD));
    }

    /** By a link, by the address of a talk, and for whoever was let in a moment before. */
    @Test
    public void isShutAtEveryOtherWayToo() {
        String study = broughtIn("demo-past");
        String memo = "/api/studies/" + study + "/memos/1";
        String link = as(LEAD).post(memo + "/links", Map.of("days", 7))
                .json()
                .path("address")
                .asString();
        List<String> talks = sql.queryForList(
                "select id::text from reconciliation where study_id = ? order by id",
                String.class,
                UUID.fromString(study));
        List<String> read = talks.stream()
                .filter(t -> as(RATER).get("/api/splits/" + t).status() == 200)
                .toList();
        assertThat(nobody().get(link).status()).isEqualTo(200);
        assertThat(read).isNotEmpty();

        delete(study);

        assertThat(nobody().get(link).status()).isEqualTo(404);
        assertThat(read)
                .allSatisfy(t ->
                        assertThat(as(RATER).get("/api/splits/" + t).status()).isEqualTo(404));
        assertThatThrownBy(() ->
                        transactions.executeWithoutResult(status -> studies.claim(new StudyId(UUID.fromString(study)))))
                .isInstanceOf(Problem.class);
    }

    /** Nobody pays for answers, or tries code, for a study that nobody sees. */
    @Test
    public void endsWhatGoesOn() {
        String study = broughtIn("demo-next");
        UUID id = UUID.fromString(study);
        // Something is left to ask, in an hour: the run goes on until then.
        sql.update(
                "update run_cell set state = 'WAITING', not_before = now() + interval '1 hour'"
                        + " where run_id in (select id from run where study_id = ?)",
                id);
        sql.update("update run set state = 'RUNNING' where study_id = ?", id);
        String tried = broughtIn("demo");
        UUID triedId = UUID.fromString(tried);
        // Another server has it under way.
        sql.update(
                "update trial set state = 'RUNNING', outcome = null, ended_at = null, owner = gen_random_uuid(),"
                        + " lease_until = now() + interval '1 hour' where study_id = ?",
                triedId);

        delete(tried);
        delete(study);

        assertThat(sql.queryForList(
                        "select distinct state || ': ' || reason from run where study_id = ?", String.class, id))
                .containsExactly("PAUSED: The study was deleted.");
        assertThat(sql.queryForList("select distinct state from trial where study_id = ?", String.class, triedId))
                .containsExactly("STOPPED");
    }

    private String broughtIn(String folder) {
        ApiClient.Response response =
                as(LEAD).upload("/api/studies/archive?again=true", zip(files(ROOT.resolve(folder))));
        assertThat(response.status()).as(response.body()).isEqualTo(200);
        return response.json().path("studyId").asString();
    }

    private Map<String, Long> rows() {
        Map<String, Long> rows = new TreeMap<>();
        for (String table : sql.queryForList(
                "select relname from pg_class where relkind = 'r' and relnamespace = 'public'::regnamespace",
                String.class)) {
            if (!NOT_OF_A_STUDY.contains(table)) {
                rows.put(table, sql.queryForObject("select count(*) from " + table, Long.class));
            }
        }
        return rows;
    }

    @DataProvider
    public static Object[][] demos() {
        return new Object[][] {{"demo"}, {"demo-next"}, {"demo-past"}, {"demo-after"}};
    }

    @Test(dataProvider = "demos")
    public void afterThirtyDaysAllOfItIsGoneButALine(String folder) {
        // Those of other tests.
        gone.letGo(Instant.now().plusSeconds(1));
        Map<String, Long> before = rows();
        String study = broughtIn(folder);
        UUID id = UUID.fromString(study);
        for (String path : List.of("/agreement", "/recommendation", "/archive")) {
            as(LEAD).get("/api/studies/" + study + path);
        }
        delete(study);

        gone.letGo();
        assertThat(standing(as(LEAD), study).path("title").asString())
                .as("within thirty days it stays")
                .isNotEmpty();
        gone.letGo(Instant.now().plusSeconds(1));

        assertThat(rows()).isEqualTo(before);
        assertThat(as(LEAD).post("/api/deleted-studies/" + study + "/undo", Map.of())
                        .status())
                .isEqualTo(404);
        assertThat(sql.queryForList(
                        "select sort || ' ' || who || subject from audit_event where study_id = ?", String.class, id))
                .containsExactly("STUDY_GONE orla");
        assertThat(sql.queryForMap("select * from study_deletion where study_id = ?", id))
                .containsOnlyKeys("study_id", "deleted_at", "deleted_by", "transaction_id")
                .containsEntry("deleted_by", "orla");
        List<String> naming = new ArrayList<>();
        for (String table : rows().keySet()) {
            if (sql.queryForObject(
                    "select exists (select 1 from " + table + " t where position(? in t::text) > 0)",
                    Boolean.class,
                    study)) {
                naming.add(table);
            }
        }
        assertThat(naming).as("tables in which it is still named").isEmpty();
    }

    /** A table that is added later and points at a study is not forgotten. */
    @Test
    public void everyTableThatHangsOnAStudyIsNamedWhereStudiesGo() {
        String source = sql.queryForObject("select prosrc from pg_proc where proname = 'delete_study'", String.class)
                + sql.queryForObject("select prosrc from pg_proc where proname = 'forget_acts'", String.class);
        List<String> hanging = sql.queryForList("""
                with recursive hangs(t) as (
                    select 'study'::regclass::oid
                    union select c.conrelid from pg_constraint c join hangs on c.confrelid = hangs.t where c.contype = 'f')
                select t::regclass::text from hangs""", String.class);
        assertThat(hanging)
                .hasSizeGreaterThan(50)
                .allSatisfy(table -> assertThat(source).matches("(?s).*delete from " + table + "\\b.*"));
    }

    /** The owner of the tables cannot take a study whose deletion nobody asked for, nor what was said in it. */
    @Test
    public void goesNoOtherWay() {
        UUID id = UUID.fromString(broughtIn("demo-past"));
        assertThatThrownBy(() -> sql.queryForList("select delete_study(?)", id))
                .isInstanceOf(DataAccessException.class)
                .hasMessageContaining("does not stand deleted");
        for (String delete : List.of(
                "delete from memo where study_id = ?",
                "delete from split_word where reconciliation_id in (select id from reconciliation where study_id = ?)",
                "delete from audit_event where study_id = ?",
                "delete from act where study_id = ?")) {
            assertThatThrownBy(() -> sql.update(delete, id)).as(delete).isInstanceOf(DataAccessException.class);
        }
    }
}
