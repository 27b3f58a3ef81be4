package org.mossbank.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

public class SignInTest extends ServerTest {

    private static ApiClient.Response signIn(ApiClient client, String name, String password) {
        return client.post("/api/session", Map.of("name", name, "password", password));
    }

    @Test
    public void wrongNameAndWrongPasswordLookAlike() {
        ApiClient.Response password = signIn(nobody(), "sana", "wrong password");
        ApiClient.Response name = signIn(nobody(), "nobody-here", "wrong password");
        assertThat(password.status()).isEqualTo(401);
        assertThat(name.body()).isEqualTo(password.body());
    }

    @Test
    public void guessingIsSlowedDownForOneName() {
        String study = bringIn(files -> files.put("raters.csv", bytes("rater,name\nguessed,Guessed\nbram,Bram\n")));
        ApiClient client = nobody();
        for (int i = 0; i < 5; i++) {
            assertThat(signIn(client, "guessed", "guess " + i).status()).isEqualTo(401);
        }
        ApiClient.Response refused = signIn(client, "guessed", "guess");
        assertThat(refused.status()).isEqualTo(429);
        assertThat(refused.raw().headers().firstValue("Retry-After")).contains("900");
        assertThat(signIn(nobody(), RATER, PASSWORD).status())
                .as("others go on")
                .isEqualTo(200);
        assertThat(study).isNotEmpty();
    }

    @Test
    public void theSessionChangesItsIdAtTheSignIn() {
        ApiClient client = nobody();
        String before = client.cookie("mossbank-session").orElse("none");
        signIn(client, RATER, PASSWORD);
        assertThat(client.cookie("mossbank-session").orElseThrow()).isNotEqualTo(before);
        assertThat(client.get("/api/session").json().at("/account/signInName").asString())
                .isEqualTo(RATER);
    }

    @Test
    public void cookiesAreOutOfReachOfScriptsAndOtherSites() {
        ApiClient.Response response = signIn(nobody(), RATER, PASSWORD);
        String cookie = response.raw().headers().allValues("Set-Cookie").stream()
                .filter(c -> c.startsWith("mossbank-session"))
                .findFirst()
                .orElseThrow();
        assertThat(cookie).contains("HttpOnly").contains("SameSite=Lax");
    }

    @Test
    public void aChangeWithoutTheTokenIsRefused() throws Exception {
        ApiClient client = as(RATER);
        var request = java.net.http.HttpRequest.newBuilder(address().resolve("/api/sheets/x/send"))
                .header(
                        "Cookie",
                        "mossbank-session=" + client.cookie("mossbank-session").orElseThrow())
                .POST(java.net.http.HttpRequest.BodyPublishers.noBody())
                .build();
        var response = java.net.http.HttpClient.newHttpClient()
                .send(request, java.net.http.HttpResponse.BodyHandlers.ofString());
        assertThat(response.statusCode()).isEqualTo(403);
    }

    @Test
    public void aOneTimeLinkWorksOnce() {
        byte[] archive = zip(byHandWith("newcomer"));
        JsonNode brought = as(LEAD).upload("/api/studies/archive", archive).json();
        assertThat(brought.path("invitations").size()).isEqualTo(1);
        String token = brought.at("/invitations/0/token").asString();
        ApiClient newcomer = nobody();
        assertThat(newcomer.post("/api/links/inspect", Map.of("token", token))
                        .json()
                        .path("signInName")
                        .asString())
                .isEqualTo("newcomer");
        Map<String, String> tooShort = Map.of("token", token, "displayName", "New", "password", "short");
        assertThat(newcomer.post("/api/links/use", tooShort)
                        .json()
                        .at("/errors/0/field")
                        .asString())
                .isEqualTo("password");
        Map<String, String> tooLong = Map.of("token", token, "displayName", "New", "password", "é".repeat(40));
        assertThat(newcomer.post("/api/links/use", tooLong)
                        .json()
                        .at("/errors/0/field")
                        .asString())
                .isEqualTo("password");
        Map<String, String> right = Map.of("token", token, "displayName", "New Comer", "password", "long enough it is");
        assertThat(newcomer.post("/api/links/use", right).status()).isEqualTo(200);
        assertThat(sheets(newcomer, brought.path("studyId").asString())).hasSize(4);
        assertThat(nobody().post("/api/links/use", right).problem()).isEqualTo("link-used-or-expired");
        assertThat(signIn(nobody(), "newcomer", "long enough it is").status()).isEqualTo(200);
    }

    private static Map<String, byte[]> byHandWith(String rater) {
        Map<String, byte[]> files = byHand();
        files.put("raters.csv", bytes("rater,name\n" + rater + ",Somebody New\nbram,Bram Okkers\n"));
        return files;
    }

    @Test
    public void theLeadCanMakeANewLinkForWhoHasNoneYet() {
        JsonNode brought = as(LEAD).upload("/api/studies/archive", zip(byHandWith("latecomer")))
                .json();
        String path = "/api/studies/" + brought.path("studyId").asString() + "/raters/"
                + brought.at("/invitations/0/accountId").asString() + "/link";
        String token = as(LEAD).post(path, Map.of()).json().path("token").asString();
        assertThat(nobody().post("/api/links/inspect", Map.of("token", token)).status())
                .isEqualTo(200);
    }

    @Test
    public void pagesCarryTheHeadersThatKeepForeignContentOut() {
        ApiClient.Response page = nobody().get("/sign-in");
        assertThat(page.status()).isEqualTo(200);
        assertThat(page.raw().headers().firstValue("Content-Security-Policy").orElseThrow())
                .contains("script-src 'self'")
                .contains("default-src 'none'");
        assertThat(page.body()).contains("<div id=\"root\">");
        assertThat(nobody().get("/assets/missing.js").status()).isEqualTo(404);
    }
}
