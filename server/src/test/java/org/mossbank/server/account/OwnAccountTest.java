package org.mossbank.server.account;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Map;
import org.mossbank.server.ServerTest;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** What somebody sees and changes of their own account. */
public class OwnAccountTest extends ServerTest {
    private static final String FIREFOX = "Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0";

    @Test
    public void nameAndPreferencesComeWithEverySession() {
        ApiClient person = newcomer("prefers", false);

        person.put(
                "/api/account",
                Map.of(
                        "displayName",
                        " Anouk  Prefer ",
                        "preferences",
                        Map.of("theme", "DARK", "timeZone", "Pacific/Chatham")));

        JsonNode session = freshly("prefers").get("/api/session").json();
        assertThat(session.at("/account/displayName").asString()).isEqualTo("Anouk  Prefer");
        assertThat(session.at("/preferences/theme").asString()).isEqualTo("DARK");
        assertThat(session.at("/preferences/timeZone").asString()).isEqualTo("Pacific/Chatham");
        assertThat(actsOf("prefers")).contains("NAME_CHANGED");
    }

    @Test
    public void aZoneThatNobodyKnowsIsRefused() {
        ApiClient person = newcomer("zoneless", false);
        ApiClient.Response refused = person.put(
                "/api/account",
                Map.of("displayName", "Somebody", "preferences", Map.of("timeZone", "Atlantis/Harbour")));
        assertThat(refused.status()).isEqualTo(400);
    }

    @Test
    public void oneOtherSessionIsEndedByItself() {
        ApiClient here = newcomer("sessions", false);
        ApiClient there = freshly("sessions");
        ApiClient third = nobody();
        third.header("User-Agent", FIREFOX);
        third.post("/api/session", Map.of("name", "sessions", "password", PASSWORD));

        JsonNode sessions = here.get("/api/account").json().path("sessions");
        assertThat(sessions.size()).isEqualTo(3);
        assertThat(sessions.at("/0/here").asBoolean()).isTrue();
        JsonNode firefox = sessions.values().stream()
                .filter(s -> s.path("device").asString().equals("Firefox, Linux"))
                .findFirst()
                .orElseThrow();

        JsonNode left = here.delete(
                        "/api/account/sessions/" + firefox.path("handle").asString())
                .json();

        assertThat(left.path("sessions").size()).isEqualTo(2);
        assertThat(third.get("/api/account").status()).isEqualTo(401);
        assertThat(there.get("/api/account").status()).isEqualTo(200);
        assertThat(here.get("/api/account").status()).isEqualTo(200);
    }

    /** However much it is used. */
    @Test
    public void aSessionEndsWhenItHasLastedAsLongAsOneMay() throws SQLException {
        ApiClient person = newcomer("stays-long", false);
        assertThat(person.get("/api/account").status()).isEqualTo(200);
        try (Connection connection = DATABASE.connect();
                Statement sql = connection.createStatement()) {
            sql.execute("update spring_session set creation_time = creation_time - 31::bigint * 24 * 3600 * 1000"
                    + " where principal_name = 'stays-long'");
        }
        assertThat(person.get("/api/account").status()).isEqualTo(401);
        assertThat(person.get("/api/session").json().has("account")).isFalse();
    }

    @Test
    public void nobodyEndsASessionOfSomebodyElse() {
        ApiClient one = newcomer("session-one", false);
        ApiClient other = newcomer("session-other", false);
        String handle = one.get("/api/account").json().at("/sessions/0/handle").asString();

        other.delete("/api/account/sessions/" + handle);

        assertThat(one.get("/api/account").status()).isEqualTo(200);
    }
}
