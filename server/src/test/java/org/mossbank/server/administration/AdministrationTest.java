package org.mossbank.server.administration;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.Map;
import org.mossbank.server.ServerTest;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** What an administrator looks after, and where it ends. */
public class AdministrationTest extends ServerTest {
    private static final String ACCOUNTS = "/api/accounts";

    private static Map<String, Boolean> rights(boolean mayBringIn, boolean administrator) {
        return Map.of("mayBringIn", mayBringIn, "administrator", administrator);
    }

    @Test
    public void anAdministratorSeesNoStudyWithoutBeingLetIn() {
        ApiClient administrator = newcomer("admin-only", false);
        as(LEAD).put(ACCOUNTS + "/" + idOf(administrator) + "/rights", rights(false, true));
        String study = bringIn();

        assertThat(administrator.get(ACCOUNTS).status()).isEqualTo(200);
        assertThat(administrator.get("/api/studies").json().size()).isZero();
        assertThat(administrator.get("/api/studies/" + study).status()).isEqualTo(404);
        assertThat(administrator.get("/api/studies/" + study + "/audit-events").status())
                .isEqualTo(404);
        assertThat(administrator.post("/api/studies", Map.of("title", "Mine")).status())
                .isEqualTo(403);
        as(LEAD).put(ACCOUNTS + "/" + idOf(administrator) + "/rights", rights(false, false));
        assertThat(administrator.get(ACCOUNTS).status()).isEqualTo(403);
    }

    @Test
    public void whoMayBeginStudiesIsSaidByTheAdministrator() {
        ApiClient person = newcomer("may-begin", false);
        String own = ACCOUNTS + "/" + idOf(person) + "/rights";

        as(LEAD).put(own, rights(true, false));
        assertThat(person.post("/api/studies", Map.of("title", "Mine")).status())
                .isEqualTo(201);
        as(LEAD).put(own, rights(false, false));
        assertThat(person.post("/api/studies", Map.of("title", "Mine")).status())
                .isEqualTo(403);
        assertThat(person.get("/api/studies").json().size())
                .as("they still lead it")
                .isEqualTo(1);
    }

    @Test
    public void whoeverLeavesIsSignedOutAndCannotComeBackByPasswordOrLink() {
        ApiClient person = newcomer("leaves", false);
        String own = ACCOUNTS + "/" + idOf(person);
        String token =
                as(LEAD).post(own + "/link", Map.of()).json().path("token").asString();

        JsonNode gone = as(LEAD).post(own + "/deactivate", Map.of()).json();

        assertThat(gone.path("active").asBoolean(true)).isFalse();
        assertThat(person.get("/api/account").status()).isEqualTo(401);
        assertThat(nobody().post("/api/session", Map.of("name", "leaves", "password", PASSWORD))
                        .status())
                .isEqualTo(401);
        assertThat(nobody().post("/api/links/inspect", Map.of("token", token)).status())
                .isEqualTo(404);
        assertThat(as(LEAD).post(own + "/link", Map.of()).problem()).isEqualTo("account-deactivated");

        as(LEAD).post(own + "/reactivate", Map.of());
        assertThat(freshly("leaves").get("/api/account").status()).isEqualTo(200);
    }

    /** The database refuses the session itself: whoever signs in while they are deactivated is not in afterwards. */
    @Test
    public void whoeverHasLeftHasNoSession() throws SQLException {
        newcomer("just-leaving", false);
        try (Connection connection = DATABASE.connect();
                Statement sql = connection.createStatement()) {
            sql.execute("update account set deactivated_at = now() where sign_in_name = 'just-leaving'");
            int kept = sql.executeUpdate("""
                    insert into spring_session (primary_id, session_id, creation_time, last_access_time,
                        max_inactive_interval, expiry_time, principal_name)
                    values (gen_random_uuid()::text, gen_random_uuid()::text, 0, 0, 1, 1, 'just-leaving')""");
            assertThat(kept).isZero();
        }
    }

    @Test
    public void theLastAdministratorStays() {
        List<ApiClient.Response> refused = List.of(
                as(LEAD).put(ACCOUNTS + "/" + idOf(as(LEAD)) + "/rights", rights(true, false)),
                as(LEAD).post(ACCOUNTS + "/" + idOf(as(LEAD)) + "/deactivate", Map.of()));
        assertThat(refused).allSatisfy(r -> assertThat(r.problem()).isEqualTo("last-administrator"));
    }

    @Test
    public void accountsComeByNameAndPageByPage() {
        for (int i = 0; i < 55; i++) {
            as(LEAD).post(
                            ACCOUNTS,
                            Map.of(
                                    "signInName",
                                    "paged-%02d".formatted(i),
                                    "name",
                                    "Paged Person",
                                    "mayBringIn",
                                    false));
        }
        JsonNode first = as(LEAD).get(ACCOUNTS + "?part=PAGED").json();
        JsonNode second = as(LEAD).get(
                        ACCOUNTS + "?part=paged&after=" + first.path("next").asString())
                .json();

        assertThat(first.path("accounts").size()).isEqualTo(50);
        assertThat(second.at("/accounts/0/signInName").asString()).isEqualTo("paged-50");
        assertThat(second.has("next")).isFalse();
        ApiClient.Response taken =
                as(LEAD).post(ACCOUNTS, Map.of("signInName", "paged-01", "name", "Another", "mayBringIn", false));
        assertThat(taken.status()).isEqualTo(400);
    }

    @Test
    public void whatIsDoneToAccountsIsWrittenDown() {
        ApiClient person = newcomer("written-down", true);
        String own = ACCOUNTS + "/" + idOf(person);
        as(LEAD).put(own + "/rights", rights(true, true));
        as(LEAD).put(own + "/rights", rights(false, false));
        as(LEAD).post(own + "/deactivate", Map.of());
        as(LEAD).post(own + "/reactivate", Map.of());

        List<String> told =
                as(LEAD).get("/api/audit-events?who=" + LEAD + "&limit=200").json().path("events").values().stream()
                        .filter(e -> e.path("subject").asString("").equals("written-down"))
                        .map(e -> e.path("sort").asString())
                        .toList();
        assertThat(told.subList(0, 2)).containsExactly("ACCOUNT_REACTIVATED", "ACCOUNT_DEACTIVATED");
        assertThat(told.subList(2, 4)).containsExactlyInAnyOrder("MAY_NOT_BEGIN_STUDIES", "ADMINISTRATOR_NO_MORE");
        assertThat(told.subList(4, told.size()))
                .containsExactly("ADMINISTRATOR_MADE", "LINK_MADE", "MAY_BEGIN_STUDIES", "ACCOUNT_MADE");
    }
}
