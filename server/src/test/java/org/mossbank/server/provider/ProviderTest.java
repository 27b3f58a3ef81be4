package org.mossbank.server.provider;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.util.Map;
import org.mossbank.server.ServerTest;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.ProviderProcess;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.testng.annotations.AfterClass;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/** Signing in by a provider: who comes in, as whom, and what is not believed. */
public class ProviderTest extends ServerTest {
    private static final String WAY = "/api/sign-in/harbour";

    private ProviderProcess provider;

    @Autowired
    private JdbcTemplate sql;

    @BeforeClass
    public void start() {
        provider = ProviderProcess.start(ROOT, PROVIDER_PORT);
    }

    @AfterClass(alwaysRun = true)
    public void stop() {
        provider.close();
    }

    @AfterMethod(alwaysRun = true)
    public void mend() {
        provider.fault("none");
    }

    private static URI location(ApiClient.Response response) {
        assertThat(response.status()).as(response.body()).isEqualTo(302);
        return URI.create(response.raw().headers().firstValue("Location").orElseThrow());
    }

    /** Goes there and back; where the browser ends. */
    private String goes(ApiClient client, String way, String name) {
        URI back = provider.signIn(location(client.get(way)), name);
        assertThat(back.getPath()).isEqualTo(WAY + "/back");
        String end =
                location(client.get(back.getPath() + "?" + back.getRawQuery())).toString();
        // The page that the browser loads there asks who it is, and gets the token that changes need.
        client.get("/api/session");
        return end;
    }

    private static JsonNode whoIs(ApiClient client) {
        return client.get("/api/session").json().path("account");
    }

    @Test
    public void whoeverTheProviderKnowsComesInAndGroupsSayWhoMayLead() {
        ApiClient wren = nobody();
        ApiClient odile = nobody();

        assertThat(goes(wren, WAY + "?next=%2Fstudies%3Fa%3D1", "wren")).endsWith("/studies?a=1");
        goes(odile, WAY, "odile");

        assertThat(whoIs(wren).path("signInName").asString()).isEqualTo("wren");
        assertThat(whoIs(wren).path("displayName").asString()).isEqualTo("Wren Aldous");
        assertThat(wren.post("/api/studies", Map.of("title", "Mine")).status()).isEqualTo(201);
        assertThat(odile.post("/api/studies", Map.of("title", "Mine")).status()).isEqualTo(403);
        String first = whoIs(wren).path("id").asString();
        ApiClient again = nobody();
        goes(again, WAY, "wren");
        assertThat(whoIs(again).path("id").asString()).isEqualTo(first);
    }

    /** Somebody of the same name, or with the same address, is somebody else. */
    @Test
    public void aNameThatIsTakenIsNotTakenOver() {
        ApiClient stranger = nobody();
        goes(stranger, WAY, "bram");

        assertThat(whoIs(stranger).path("signInName").asString()).isEqualTo("bram-2");
        assertThat(idOf(stranger)).isNotEqualTo(idOf(as(RATER)));
        assertThat(stranger.get("/api/sheets").json().size()).isZero();
    }

    @DataProvider
    public static Object[][] whatIsNotBelieved() {
        return new Object[][] {{"wrong-nonce"}, {"expired"}, {"strange-key"}, {"other-issuer"}, {"other-audience"}};
    }

    @Test(dataProvider = "whatIsNotBelieved")
    public void aTokenThatIsNotRightLetsNobodyIn(String fault) {
        provider.fault(fault);
        ApiClient client = nobody();

        assertThat(goes(client, WAY, "wren")).endsWith("/sign-in?refused=provider-wrong");

        assertThat(whoIs(client).isMissingNode()).isTrue();
        assertThat(client.get("/api/account").status()).isEqualTo(401);
        JsonNode last = as(LEAD).get("/api/audit-events?sort=SIGN_IN_REFUSED&limit=1")
                .json()
                .at("/events/0");
        assertThat(last.path("subject").asString()).startsWith("by a provider: ");
    }

    @Test
    public void newKeysOfTheProviderAreTakenUp() {
        goes(nobody(), WAY, "odile");
        provider.fault("rotated-keys");
        ApiClient client = nobody();
        goes(client, WAY, "odile");
        assertThat(whoIs(client).path("signInName").asString()).isEqualTo("odile");
    }

    @Test
    public void aProviderThatIsAwayIsSaidAndKeepsNobodyElseOut() {
        ApiClient client = nobody();
        URI there = location(client.get(WAY));
        URI back = provider.signIn(there, "wren");
        provider.fault("unreachable");

        String end =
                location(client.get(back.getPath() + "?" + back.getRawQuery())).toString();

        assertThat(end).endsWith("/sign-in?refused=provider-away");
        assertThat(freshly("sana").get("/api/account").status()).isEqualTo(200);
    }

    @Test
    public void aProviderThatCannotBeReachedIsSaidOnTheWayThere() {
        assertThat(location(nobody().get("/api/sign-in/island")).toString()).endsWith("/sign-in?refused=provider-away");
    }

    @Test
    public void anAnswerThatNobodyAskedForIsRefused() {
        ApiClient asked = nobody();
        URI back = provider.signIn(location(asked.get(WAY)), "wren");
        ApiClient other = nobody();

        String end =
                location(other.get(back.getPath() + "?" + back.getRawQuery())).toString();

        assertThat(end).contains("refused=");
        assertThat(other.get("/api/account").status()).isEqualTo(401);
    }

    @Test
    public void aPlaceElsewhereIsNotGoneTo() {
        for (String elsewhere : new String[] {"https://elsewhere.example", "//elsewhere.example", "/\\elsewhere"}) {
            String next = java.net.URLEncoder.encode(elsewhere, java.nio.charset.StandardCharsets.UTF_8);
            assertThat(goes(nobody(), WAY + "?next=" + next, "odile")).doesNotContain("elsewhere");
        }
    }

    @Test
    public void whoeverWasInvitedMakesTheirOneTimeLinkTheirOwn() {
        JsonNode made = as(LEAD).post(
                        "/api/accounts", Map.of("signInName", "invited", "name", "Invited", "mayBringIn", false))
                .json();
        String token = made.at("/invitation/token").asString();
        ApiClient client = nobody();
        String way = client.post("/api/links/provider", Map.of("token", token, "provider", "harbour"))
                .json()
                .path("address")
                .asString();

        assertThat(goes(client, way, "anders")).endsWith("/");

        assertThat(whoIs(client).path("signInName").asString()).isEqualTo("invited");
        assertThat(whoIs(client).path("canSignIn").asBoolean()).isTrue();
        assertThat(nobody().post("/api/links/inspect", Map.of("token", token)).status())
                .isEqualTo(404);

        String own = "/api/accounts/" + idOf(client);
        as(LEAD).post(own + "/deactivate", Map.of());
        assertThat(goes(nobody(), WAY, "anders")).endsWith("/sign-in?refused=left");
        as(LEAD).post(own + "/reactivate", Map.of());
        assertThat(client.delete("/api/account/identities/harbour").status())
                .as("signed out with it")
                .isEqualTo(401);
        ApiClient back = nobody();
        goes(back, WAY, "anders");
        assertThat(back.delete("/api/account/identities/harbour").problem()).isEqualTo("last-way-in");
    }

    /** Who sits down at the same browser next is somebody else. */
    @Test
    public void aLinkThatWasBegunAndGivenUpIsNotUsedForWhoeverSignsInNext() {
        JsonNode made = as(LEAD).post(
                        "/api/accounts", Map.of("signInName", "gives-up", "name", "Gives Up", "mayBringIn", false))
                .json();
        String token = made.at("/invitation/token").asString();
        ApiClient browser = nobody();
        browser.post("/api/links/provider", Map.of("token", token, "provider", "harbour"));

        goes(browser, WAY, "odile");

        assertThat(whoIs(browser).path("signInName").asString()).isEqualTo("odile");
        assertThat(nobody().post("/api/links/inspect", Map.of("token", token)).status())
                .as("the link is still there for whom it is")
                .isEqualTo(200);
    }

    @Test
    public void aWayInIsAddedToOnesOwnAccountAndTakenOffAgain() {
        ApiClient known = nobody();
        goes(known, WAY, "odile");
        ApiClient own = newcomer("adds-a-way", false);

        String way = own.post("/api/account/identities/harbour", Map.of())
                .json()
                .path("address")
                .asString();
        assertThat(goes(own, way, "odile")).endsWith("/account?refused=known-already");
        assertThat(whoIs(own).path("signInName").asString())
                .as("still signed in")
                .isEqualTo("adds-a-way");

        ApiClient anew = newcomer("takes-a-way-off", false);
        goes(
                anew,
                anew.post("/api/account/identities/harbour", Map.of())
                        .json()
                        .path("address")
                        .asString(),
                "spare");
        assertThat(anew.get("/api/account/identities").json().size()).isEqualTo(1);
        assertThat(anew.delete("/api/account/identities/harbour").json().size()).isZero();
        assertThat(actsOf("takes-a-way-off")).startsWith("PROVIDER_REMOVED", "PROVIDER_ADDED");
        assertThat(known.get("/api/account/identities").json().at("/0/shownAs").asString())
                .isEqualTo("odile");
    }

    /** Before what cannot be taken back: by whoever's account it is, and asked there although they are in. */
    @Test
    public void whoeverHasNoPasswordShowsWhoTheyAreThere() {
        ApiClient wren = nobody();
        goes(wren, WAY, "wren");
        String study = wren.post("/api/studies", Map.of("title", "Wren's"))
                .json()
                .path("id")
                .asString();
        String deletion = "/api/studies/" + study + "/deletion";
        Map<String, String> title = Map.of("title", "Wren's");
        sql.update("delete from spring_session_attributes where attribute_name = 'mossbank.proved-at'");
        assertThat(wren.post(deletion, title).problem()).isEqualTo("proof-needed");

        assertThat(goes(wren, again(wren), "odile")).endsWith("/account?refused=somebody-else");
        assertThat(wren.post(deletion, title).problem()).isEqualTo("proof-needed");
        String way = again(wren);
        assertThat(location(wren.get(way)).getQuery()).contains("prompt=login", "max_age=0");
        assertThat(goes(wren, way + "&next=%2Fstudies", "wren")).endsWith("/studies");

        assertThat(whoIs(wren).path("signInName").asString()).isEqualTo("wren");
        assertThat(wren.post(deletion, title).status()).isEqualTo(204);
        as(LEAD).post("/api/account/proof", Map.of("password", PASSWORD));
    }

    private static String again(ApiClient client) {
        return client.post("/api/account/proof/harbour", Map.of())
                .json()
                .path("address")
                .asString();
    }

    @Test
    public void signingOutLeadsToTheProviderAsWell() {
        ApiClient client = nobody();
        goes(client, WAY, "wren");

        ApiClient.Response out = client.delete("/api/session");

        assertThat(out.status()).isEqualTo(204);
        assertThat(out.raw().headers().firstValue("X-Mossbank-Sign-Out-At").orElse(""))
                .startsWith("http://127.0.0.1:" + PROVIDER_PORT + "/connect/logout?id_token_hint=")
                .contains("post_logout_redirect_uri=");
        assertThat(client.get("/api/account").status()).isEqualTo(401);
        assertThat(freshly("sana").delete("/api/session").raw().headers().firstValue("X-Mossbank-Sign-Out-At"))
                .isEmpty();
    }

    @Test
    public void thePageIsToldWhichWaysThereAre() {
        JsonNode ways = nobody().get("/api/sign-in").json();
        assertThat(ways.path("passwords").asBoolean()).isTrue();
        assertThat(ways.at("/providers/0/name").asString()).isEqualTo("Harbour office");
        assertThat(ways.toString()).doesNotContain(ProviderProcess.SECRET, "issuer");
        assertThat(nobody().get("/api/sign-in/nowhere").status()).isEqualTo(404);
    }
}
