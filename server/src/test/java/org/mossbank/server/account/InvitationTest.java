package org.mossbank.server.account;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.util.Map;
import org.mossbank.server.Bodies;
import org.mossbank.server.ServerTest;
import org.mossbank.server.StudyInTheMaking;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Links are the inviter's alone; whoever has an account is asked; what ends, ends at once. */
public class InvitationTest extends ServerTest {
    private static final String NEW_PASSWORD = "lichen on the north side";

    private ApiClient other;
    private String study;

    @BeforeClass
    public void aSecondLead() throws SQLException {
        JsonNode brought = as(LEAD).upload("/api/studies/archive?again=true", zip(byHandWith("second")))
                .json();
        ApiClient client = enters(brought.at("/invitations/0/token").asString());
        try (Connection connection = DATABASE.connect();
                PreparedStatement may = connection.prepareStatement(
                        "update account set may_bring_in = true where sign_in_name = 'second'")) {
            may.executeUpdate();
        }
        other = client;
        study = begins(other);
    }

    private static Map<String, byte[]> byHandWith(String rater) {
        Map<String, byte[]> files = byHand();
        files.put("raters.csv", bytes("rater,name\n" + rater + ",Somebody New\nbram,Bram Okkers\n"));
        return files;
    }

    private static String begins(ApiClient lead) {
        return "/api/studies/"
                + lead.post("/api/studies", Map.of("title", "Theirs"))
                        .json()
                        .path("id")
                        .asString();
    }

    private static ApiClient.Response add(ApiClient lead, String study, String name) {
        return lead.post(study + "/raters", Map.of("signInName", name, "name", "Somebody"));
    }

    private static String tokenOf(ApiClient.Response added) {
        return added.json().at("/invitation/token").asString("");
    }

    private int inspect(String token) {
        return nobody().post("/api/links/inspect", Map.of("token", token)).status();
    }

    @Test
    public void whoSomebodyElseInvitedIsAskedAndGetsNoLink() {
        String name = "asked-first";
        ApiClient.Response invited = add(as(LEAD), begins(as(LEAD)), name);
        assertThat(tokenOf(invited)).isNotEmpty();

        ApiClient.Response asked = add(other, study, name);

        assertThat(asked.status()).isEqualTo(201);
        assertThat(asked.json().path("asked").asBoolean()).isTrue();
        assertThat(asked.json().has("invitation")).isFalse();
        String person = asked.json().path("accountId").asString();
        assertThat(other.post(study + "/raters/" + person + "/link", Map.of()).problem())
                .isEqualTo("has-password");
        assertThat(inspect(tokenOf(invited)))
                .as("the inviter's link still works")
                .isEqualTo(200);
    }

    /** A lead who takes another name for free is told whose it is, where they invited that person; nobody else is told. */
    @Test
    public void whoIsAddedUnderATakenNameIsSaidByTheNameTheyHave() {
        String first = begins(as(LEAD));
        as(LEAD).post(first + "/raters", Map.of("signInName", "known-before", "name", "Known Before"));

        Map<String, String> taken = Map.of("signInName", "known-before", "name", "Somebody Else");
        JsonNode added = as(LEAD).post(begins(as(LEAD)) + "/raters", taken).json();
        JsonNode asked = other.post(study + "/raters", taken).json();

        assertThat(added.path("name").asString()).isEqualTo("Known Before");
        assertThat(asked.path("asked").asBoolean()).isTrue();
        assertThat(asked.path("name").asString()).isEqualTo("Somebody Else");
    }

    @Test
    public void whoIsAskedBelongsToTheStudyOnceTheyAccept() {
        String own = begins(other);
        add(other, own, "ines");
        ApiClient ines = as("ines");
        String id = own.substring(own.lastIndexOf('/') + 1);

        assertThat(ines.get(own).status()).as("not before").isEqualTo(404);
        assertThat(ines.get("/api/studies").body()).doesNotContain(id);
        JsonNode asked = ines.get("/api/asked")
                .json()
                .valueStream()
                .filter(a -> a.path("studyId").asString().equals(id))
                .findFirst()
                .orElseThrow();
        assertThat(asked.path("title").asString()).isEqualTo("Theirs");
        assertThat(as(RATER).post("/api/asked/" + id, Map.of()).status())
                .as("nobody else")
                .isEqualTo(404);
        assertThat(ines.post("/api/asked/" + id, Map.of()).status()).isEqualTo(204);
        assertThat(ines.get(own).status()).isEqualTo(200);
        assertThat(other.get(own + "/people").body()).contains("\"accepted\":true");
        assertThat(writtenDown(other, own + "/audit-events")).startsWith("PERSON_ACCEPTED");
    }

    @Test
    public void whoDeclinesIsTakenOut() {
        String own = begins(other);
        add(other, own, "sana");
        String id = own.substring(own.lastIndexOf('/') + 1);

        assertThat(as("sana").delete("/api/asked/" + id).status()).isEqualTo(204);

        assertThat(other.get(own + "/people").json()).hasSize(1);
        assertThat(writtenDown(other, own + "/audit-events")).startsWith("PERSON_DECLINED");
    }

    @Test
    public void aRoundDoesNotOpenWhileSomebodyHasNotAccepted() {
        String own = begins(other);
        add(other, own, "juri");
        assertThat(other.post(own + "/plan", Bodies.plan(2, 0, false)).body())
                .contains("Juri Halvard was asked and has not accepted yet");
    }

    @Test
    public void anOlderLinkAndThatOfWhoWasTakenOutEndAtOnce() {
        ApiClient.Response added = add(other, study, "taken-out");
        String person = added.json().path("accountId").asString();
        String newer = other.post(study + "/raters/" + person + "/link", Map.of())
                .json()
                .path("token")
                .asString();
        assertThat(inspect(tokenOf(added))).as("the older").isEqualTo(404);
        assertThat(inspect(newer)).isEqualTo(200);

        other.delete(study + "/raters/" + person);

        assertThat(inspect(newer)).as("taken out").isEqualTo(404);
        assertThat(writtenDown(other, study + "/audit-events")).startsWith("PERSON_TAKEN_OUT");
    }

    @Test
    public void whoLostTheirPasswordGetsANewLinkFromWhoInvitedThem() {
        ApiClient.Response added = add(other, study, "forgetful");
        ApiClient before = enters(tokenOf(added));
        String path = study + "/raters/" + added.json().path("accountId").asString() + "/link";

        String token = other.post(path, Map.of()).json().path("token").asString();
        enters(token);

        assertThat(before.get("/api/session").json().has("account"))
                .as("signed out where they were")
                .isFalse();
    }

    /** A link lets in wherever its owner belongs. */
    @Test
    public void noLinkIsMadeForWhoBelongsToSomebodyElsesStudyAsWell() {
        ApiClient.Response added = add(other, study, "of-two-studies");
        ApiClient person = enters(tokenOf(added));
        String elsewhere = begins(as(LEAD));
        add(as(LEAD), elsewhere, "of-two-studies");
        String path = study + "/raters/" + added.json().path("accountId").asString() + "/link";
        assertThat(other.post(path, Map.of()).status())
                .as("asked is not yet belonging")
                .isEqualTo(200);

        person.post("/api/asked/" + elsewhere.substring(elsewhere.lastIndexOf('/') + 1), Map.of());

        assertThat(other.post(path, Map.of()).problem()).isEqualTo("has-password");
    }

    @Test
    public void aPasswordIsChangedWithTheOldOneAndEndsOtherSessions() {
        ApiClient here = enters(tokenOf(add(other, study, "changes")));
        ApiClient there = ApiClient.signedIn(address(), "changes", PASSWORD);
        assertThat(here.get("/api/account").json().path("otherSessions").asInt())
                .isEqualTo(1);

        Map<String, String> wrong = Map.of("current", "not the password", "password", NEW_PASSWORD);
        assertThat(here.put("/api/account/password", wrong)
                        .json()
                        .at("/errors/0/field")
                        .asString())
                .isEqualTo("current");
        Map<String, String> common = Map.of("current", PASSWORD, "password", "1234567890");
        assertThat(here.put("/api/account/password", common)
                        .json()
                        .at("/errors/0/field")
                        .asString())
                .isEqualTo("password");
        Map<String, String> right = Map.of("current", PASSWORD, "password", NEW_PASSWORD);
        ApiClient.Response changed = here.put("/api/account/password", right);

        assertThat(changed.json().path("otherSessions").asInt()).isZero();
        assertThat(actsOf("changes")).startsWith("PASSWORD_SET").endsWith("SIGNED_IN", "PASSWORD_SET");
        assertThat(there.get("/api/session").json().has("account")).isFalse();
        assertThat(here.get("/api/session").json().has("account")).isTrue();
        assertThat(ApiClient.signedIn(address(), "changes", NEW_PASSWORD)
                        .get("/api/studies")
                        .status())
                .isEqualTo(200);
    }

    @Test
    public void whoFindsABrowserOpenGuessesNoMoreOftenThanWhoSignsIn() {
        ApiClient here = enters(tokenOf(add(other, study, "left-open")));
        int status = 400;
        for (int i = 0; i < 12 && status == 400; i++) {
            Map<String, String> guess = Map.of("current", "guess number " + i, "password", NEW_PASSWORD);
            status = here.put("/api/account/password", guess).status();
        }
        assertThat(status).isEqualTo(429);
    }

    @Test
    public void signingOutElsewhereLeavesThisOne() {
        ApiClient here = enters(tokenOf(add(other, study, "elsewhere")));
        ApiClient there = ApiClient.signedIn(address(), "elsewhere", PASSWORD);
        assertThat(here.delete("/api/account/sessions")
                        .json()
                        .path("otherSessions")
                        .asInt())
                .isZero();
        assertThat(there.get("/api/session").json().has("account")).isFalse();
        assertThat(here.get("/api/session").json().has("account")).isTrue();
        assertThat(actsOf("elsewhere")).startsWith("SIGNED_OUT_ELSEWHERE");
    }

    @Test
    public void anExpectationIsRefusedWhereNobodyAsksForOne() {
        Map<String, String> expects = Map.of("expects", "The usual one", "usesToday", "");
        assertThat(as(RATER)
                        .put("/api/studies/" + bringIn() + "/expectation", expects)
                        .problem())
                .isEqualTo("too-late");
    }

    /** A lead reads answers as they come in. */
    @Test
    public void aLeadsExpectationIsRefusedOnceThereIsAnAnswer() {
        StudyInTheMaking making = StudyInTheMaking.begunBy(as(LEAD));
        Map<String, String> expects = Map.of("expects", "The usual one", "usesToday", "");
        assertThat(making.lead.put(making.path + "/expectation", expects).status())
                .isEqualTo(200);
        making.prompt("debugging", "Why?");
        making.candidate("Quillwort");
        making.answered();
        assertThat(making.lead.put(making.path + "/expectation", expects).problem())
                .isEqualTo("too-late");
    }
}
