package org.mossbank.server.mail;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.awaitility.Awaitility;
import org.mossbank.server.ServerTest;
import org.mossbank.server.StudyInTheMaking;
import org.mossbank.server.ids.AccountId;
import org.mossbank.standin.mail.MailStandIn;
import org.mossbank.testkit.ApiClient;
import org.springframework.beans.factory.annotation.Autowired;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Letters: to whom they go, what stands in them, and what never does. */
public class MailTest extends ServerTest {
    private static final Pattern LINK =
            Pattern.compile("https://mossbank\\.example/(welcome|address)#([A-Za-z0-9_=-]+)");
    private static final Duration PATIENCE = Duration.ofSeconds(60);

    @Autowired
    private DailyLetters daily;

    @Autowired
    private Mails.Delivery delivery;

    private static MailStandIn.Taken awaited(String address, int number) {
        Awaitility.await().atMost(PATIENCE).until(() -> MAIL.to(address).size() >= number);
        return MAIL.to(address).get(number - 1);
    }

    private static String tokenIn(MailStandIn.Taken letter) {
        Matcher link = LINK.matcher(letter.content().replace("=\n", ""));
        assertThat(link.find()).as(letter.content()).isTrue();
        return link.group(2);
    }

    private static Map<String, Object> choice(String address) {
        return Map.of("address", address, "digest", true, "reminders", true);
    }

    /** Somebody whose address is known to be theirs. */
    private ApiClient reachable(String name) {
        ApiClient person = newcomer(name, false);
        String address = name + "@harbour.example";
        person.put("/api/account/mail", choice(address));
        String token = tokenIn(awaited(address, 1));
        assertThat(nobody().post("/api/links/address", Map.of("token", token)).status())
                .isEqualTo(204);
        return person;
    }

    @Test
    public void anInvitationGoesByMailAndItsLinkIsNowhereElse() throws SQLException {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        JsonNode added = as(LEAD).post(
                        study.path + "/raters",
                        Map.of("signInName", "by-mail", "name", "By Mail", "mail", "by-mail@harbour.example"))
                .json();
        assertThat(added.path("mailed").asBoolean()).isTrue();
        assertThat(added.has("invitation")).isFalse();

        MailStandIn.Taken letter = awaited("by-mail@harbour.example", 1);
        String token = tokenIn(letter);

        assertThat(letter.content()).contains("Orla Fennick asks", "Auto-Submitted: auto-generated");
        assertThat(everythingKept()).doesNotContain(token);
        ApiClient person = enters(token);
        assertThat(person.get("/api/account/mail").json().at("/mail/confirmed").asBoolean())
                .as("whoever used the link reads what comes there")
                .isTrue();
    }

    private static String everythingKept() throws SQLException {
        StringBuilder kept = new StringBuilder();
        try (Connection connection = DATABASE.connect();
                Statement sql = connection.createStatement();
                ResultSet rows = sql.executeQuery(
                        "select t::text from one_time_link t union all select t::text from mail_proof t union all"
                                + " select convert_from(task_data, 'UTF8') from scheduled_tasks where task_data is not null"
                                + " union all select t::text from audit_event t")) {
            while (rows.next()) {
                kept.append(rows.getString(1)).append('\n');
            }
        }
        return kept.toString();
    }

    @Test
    public void anAddressIsTheirsOnceTheySaySoByWhatWasSentThere() {
        ApiClient person = newcomer("confirms", false);
        person.put("/api/account/mail", choice("first@harbour.example"));
        String token = tokenIn(awaited("first@harbour.example", 1));
        person.put("/api/account/mail", choice("second@harbour.example"));

        assertThat(nobody().post("/api/links/address", Map.of("token", token)).status())
                .as("another address was named since")
                .isEqualTo(404);
        assertThat(person.get("/api/account/mail").json().at("/mail/confirmed").asBoolean(true))
                .isFalse();
    }

    @Test
    public void aLostPasswordIsReplacedByALinkToAConfirmedAddressAlone() {
        reachable("loses");
        newcomer("unconfirmed", false).put("/api/account/mail", choice("unconfirmed@harbour.example"));

        for (String name : List.of("loses", "unconfirmed", "nobody-at-all")) {
            ApiClient.Response asked = nobody().post("/api/links/lost", Map.of("name", name));
            assertThat(asked.status()).isEqualTo(202);
            assertThat(asked.body()).isEmpty();
        }
        // A second one is not sent so soon.
        nobody().post("/api/links/lost", Map.of("name", "loses"));

        MailStandIn.Taken letter = awaited("loses@harbour.example", 2);
        assertThat(letter.content()).contains("asked for another password");
        ApiClient back = enters(tokenIn(letter));
        assertThat(back.get("/api/account").status()).isEqualTo(200);
        assertThat(MAIL.to("unconfirmed@harbour.example"))
                .allSatisfy(l -> assertThat(l.content()).contains("Is this your address?"));
    }

    @Test
    public void remindersAndTheDaysLetterTellHowMuchWaitsAndNothingOfCandidates() throws SQLException {
        ApiClient rater = reachable("reads-mail");
        String study = "/api/studies/" + bringIn();
        as(LEAD).post(study + "/raters", Map.of("signInName", "reads-mail", "name", "Reads"));
        rater.post("/api/asked/" + study.substring(study.lastIndexOf('/') + 1), Map.of());
        String id = idOf(rater);
        as(LEAD).post(study + "/round/deal", Map.of("raterId", id, "from", "UNBEGUN"));
        int waiting = sheets(rater, study.substring(study.lastIndexOf('/') + 1)).size();
        as(LEAD).post(study + "/raters/" + id + "/reminders", Map.of("words", "Quillwort is waiting."));
        assertThat(waiting).isPositive();
        MailStandIn.Taken letter = awaited("reads-mail@harbour.example", 2);
        assertThat(letter.content()).contains("Orla Fennick reminds you: " + waiting + " sheet");
        assertThat(letter.content()).doesNotContain("Quillwort", "Brindle", "Tansy", "is waiting");

        ApiClient asked = reachable("is-asked");
        as(LEAD).post(study + "/raters", Map.of("signInName", "is-asked", "name", "Asked"));
        morningFor("is-asked");
        daily.orderAll();
        daily.orderAll();
        MailStandIn.Taken digest = awaited("is-asked@harbour.example", 2);
        assertThat(digest.content()).contains("What waits for you", "a study asks for you");
        assertThat(asked.get("/api/asked").json().size()).isEqualTo(1);
        Awaitility.await()
                .during(Duration.ofSeconds(5))
                .atMost(Duration.ofSeconds(20))
                .until(() -> MAIL.to("is-asked@harbour.example").size() == 2);
    }

    /** Lets it be eight in the morning where somebody is. */
    private static void morningFor(String name) throws SQLException {
        java.time.Instant now = java.time.Instant.now();
        int offset = 8 - now.atZone(java.time.ZoneOffset.UTC).getHour();
        // In names of this sort, what lies east has a minus.
        String zone = offset == 0 ? "Etc/GMT" : offset > 0 && offset <= 14 ? "Etc/GMT-" + offset : "Etc/GMT+" + -offset;
        if (offset < -12) {
            zone = "Etc/GMT-" + (offset + 24);
        }
        try (Connection connection = DATABASE.connect();
                Statement sql = connection.createStatement()) {
            sql.execute("update account set time_zone = '" + zone + "' where sign_in_name = '" + name + "'");
        }
    }

    @Test
    public void anAddressThatTakesNoMailIsToldToTheLead() {
        StudyInTheMaking study = StudyInTheMaking.begunBy(as(LEAD));
        as(LEAD).post(
                        study.path + "/raters",
                        Map.of("signInName", "unreachable", "name", "Un Reachable", "mail", "gone@harbour.example"));

        Awaitility.await()
                .atMost(PATIENCE)
                .until(() -> troubleOf(study, "unreachable").contains("takes nothing"));
        assertThat(MAIL.to("gone@harbour.example")).isEmpty();
    }

    private String troubleOf(StudyInTheMaking study, String name) {
        return as(LEAD).get(study.path + "/people").json().values().stream()
                .filter(p -> p.path("signInName").asString().equals(name))
                .map(p -> p.path("mailTrouble").asString(""))
                .findFirst()
                .orElse("");
    }

    /** Whoever holds an open browser must not lead a link to an address of their own. */
    @Test
    public void aLetterThatWaitsDoesNotGoToAnAddressThatWasNamedSince() {
        ApiClient person = reachable("changes-mind");
        AccountId id = AccountId.from(idOf(person));
        person.put("/api/account/mail", choice("elsewhere@harbour.example"));

        delivery.deliver(new MailOrder(id, MailSort.PASSWORD_LOST, null, ""));

        assertThat(MAIL.to("elsewhere@harbour.example"))
                .allSatisfy(l -> assertThat(l.content()).contains("Is this your address?"));
    }

    @Test
    public void aServerThatIsBusyIsAskedAgain() {
        newcomer("busy-server", false).put("/api/account/mail", choice("later@harbour.example"));
        awaited("later@harbour.example", 1);
    }

    @Test
    public void aLineBreakInAnAddressOrANameWritesNoHeader() {
        ApiClient person = newcomer("breaks", false);
        assertThat(person.put("/api/account/mail", choice("a@b.example\nBcc: c@d.example"))
                        .status())
                .isEqualTo(400);
    }
}
