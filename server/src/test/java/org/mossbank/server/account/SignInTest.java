package org.mossbank.server.account;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import org.mossbank.server.ServerTest;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.DataProvider;
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
        long wait = refused.raw().headers().firstValueAsLong("Retry-After").orElseThrow();
        assertThat(wait).as("a try comes back in 3 minutes").isBetween(1L, 181L);
        assertThat(signIn(nobody(), RATER, PASSWORD).status())
                .as("others go on")
                .isEqualTo(200);
        assertThat(study).isNotEmpty();
    }

    /** Each test counts for itself: what is counted by address would be shared by all of them. */
    private ApiClient from(String address) {
        ApiClient client = nobody();
        client.header("X-Forwarded-For", address);
        return client;
    }

    /** Somebody whose guesses bother no other test. */
    private void comesIn(String name) {
        JsonNode brought = as(LEAD).upload("/api/studies/archive?again=true", zip(byHandWith(name)))
                .json();
        Map<String, String> use = Map.of(
                "token", brought.at("/invitations/0/token").asString(), "displayName", "New", "password", PASSWORD);
        assertThat(nobody().post("/api/links/use", use).status()).isEqualTo(200);
    }

    @Test
    public void triesAtTheSameTimeAreAllCounted() {
        List<Integer> statuses = IntStream.range(0, 24)
                .parallel()
                .mapToObj(i -> signIn(from("203.0.113.7"), "no-such-person", "guess number " + i))
                .map(ApiClient.Response::status)
                .toList();
        assertThat(statuses).containsOnly(401, 429);
        assertThat(statuses.stream().filter(s -> s == 401)).hasSize(5);
    }

    @Test
    public void aRightPasswordGivesBackWhatTheTryTook() {
        for (int i = 0; i < 60; i++) {
            assertThat(signIn(from("203.0.113.8"), "juri", PASSWORD).status()).isEqualTo(200);
        }
    }

    @Test
    public void aRightPasswordClearsTheWrongOnes() {
        comesIn("clears");
        ApiClient client = from("203.0.113.9");
        for (int round = 0; round < 3; round++) {
            for (int i = 0; i < 4; i++) {
                assertThat(signIn(from("203.0.113.9"), "clears", "wrong one").status())
                        .isEqualTo(401);
            }
            assertThat(signIn(client, "clears", PASSWORD).status()).isEqualTo(200);
        }
    }

    @Test
    public void whoIsKnownAtADeviceDoesNotWaitForOthersGuesses() {
        comesIn("owner");
        ApiClient own = from("203.0.113.10");
        assertThat(signIn(own, "owner", PASSWORD).status()).isEqualTo(200);
        for (int i = 0; i < 30; i++) {
            signIn(from("198.51.100." + i), "owner", "guess " + i);
        }
        assertThat(signIn(from("198.51.100.99"), "owner", PASSWORD).status())
                .as("guessed at from everywhere")
                .isEqualTo(429);
        assertThat(signIn(own, "owner", PASSWORD).status()).isEqualTo(200);
    }

    @Test
    public void anOfficesAddressIsNotTakenAwayFromWhoIsKnown() {
        ApiClient own = from("203.0.113.11");
        assertThat(signIn(own, "bram", PASSWORD).status()).isEqualTo(200);
        for (int i = 0; i < 60; i++) {
            signIn(from("203.0.113.11"), "made-up-" + i, "guess");
        }
        assertThat(signIn(own, "bram", PASSWORD).status()).isEqualTo(200);
    }

    @Test
    public void aMarkOfAnotherOrChangedIsNone() {
        comesIn("marked");
        ApiClient known = from("203.0.113.12");
        ApiClient.Response response = signIn(known, "marked", PASSWORD);
        String cookie = response.raw().headers().allValues("Set-Cookie").stream()
                .filter(c -> c.startsWith("mossbank-device"))
                .findFirst()
                .orElseThrow();
        assertThat(cookie).contains("HttpOnly").contains("SameSite=Lax").contains("Max-Age=34560000");
        // The mark of one says nothing for another, and one that was changed says nothing at all.
        for (int i = 0; i < 5; i++) {
            signIn(known, "another", "guess " + i);
        }
        assertThat(signIn(known, "another", "guess").status()).isEqualTo(429);
        ApiClient forged = from("203.0.113.13");
        forged.header("Cookie", "mossbank-device=" + cookie.split("[=;]")[1] + "x");
        for (int i = 0; i < 5; i++) {
            signIn(forged, "marked", "guess " + i);
        }
        assertThat(signIn(forged, "marked", "guess").status()).isEqualTo(429);
    }

    @Test
    public void nobodyIsBelievedAboutWhoAsksButTheProxiesNamed() {
        // 127.0.0.1 is named in the tests' settings; an address further from us that it passes on is not.
        for (int i = 0; i < 5; i++) {
            ApiClient client = nobody();
            client.header("X-Forwarded-For", "10.9.9." + i + ", 203.0.113.14");
            assertThat(signIn(client, "forwarded", "guess " + i).status()).isEqualTo(401);
        }
        assertThat(signIn(from("203.0.113.14"), "forwarded", "guess").status()).isEqualTo(429);
    }

    @DataProvider
    public Object[][] passwordsThatWillNotDo() {
        return new Object[][] {
            {"short", "nine char"},
            {"common", "Password123"},
            {"the sign-in name", "weakling-2026"},
            {"the name", "Wanda Weakling 1!"},
        };
    }

    @Test(dataProvider = "passwordsThatWillNotDo")
    public void aPasswordThatIsEasilyGuessedIsRefused(String what, String password) {
        JsonNode brought = as(LEAD).upload("/api/studies/archive?again=true", zip(byHandWith("weakling")))
                .json();
        Map<String, String> use = Map.of(
                "token",
                brought.at("/invitations/0/token").asString(),
                "displayName",
                "Wanda Weakling",
                "password",
                password);
        ApiClient.Response refused = nobody().post("/api/links/use", use);
        assertThat(refused.status()).as(what).isEqualTo(400);
        assertThat(refused.json().at("/errors/0/field").asString()).isEqualTo("password");
    }

    @Test
    public void ofSeveralWhoUseALinkAtOnceOneGetsIn() {
        JsonNode brought = as(LEAD).upload("/api/studies/archive?again=true", zip(byHandWith("raced")))
                .json();
        Map<String, String> use = Map.of(
                "token", brought.at("/invitations/0/token").asString(),
                "displayName", "Raced",
                "password", "long enough it is");
        List<Integer> statuses = IntStream.range(0, 6)
                .parallel()
                .mapToObj(i -> nobody().post("/api/links/use", use).status())
                .sorted()
                .toList();
        assertThat(statuses).containsExactly(200, 404, 404, 404, 404, 404);
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
        JsonNode brought =
                as(LEAD).upload("/api/studies/archive?again=true", archive).json();
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
        JsonNode brought = as(LEAD).upload("/api/studies/archive?again=true", zip(byHandWith("latecomer")))
                .json();
        String path = "/api/studies/" + brought.path("studyId").asString() + "/raters/"
                + brought.at("/invitations/0/accountId").asString() + "/link";
        String token = as(LEAD).post(path, Map.of()).json().path("token").asString();
        assertThat(nobody().post("/api/links/inspect", Map.of("token", token)).status())
                .isEqualTo(200);
    }

    /** Whoever opens a one-time link has asked for nothing before, and the first thing sent is the link. */
    @Test
    public void aPageBringsTheTokenThatItsFirstRequestNeeds() {
        assertThat(nobody().get("/welcome").raw().headers().allValues("Set-Cookie"))
                .as("a cookie that is there already is not set again")
                .noneMatch(c -> c.startsWith("mossbank-session"));
        ApiClient fresh = ApiClient.stranger(address());
        fresh.get("/welcome");
        assertThat(fresh.post("/api/links/inspect", Map.of("token", "none")).status())
                .isEqualTo(404);
        assertThat(ApiClient.stranger(address()).raw("HEAD", "/", "").status()).isEqualTo(200);
    }

    @Test
    public void pagesCarryTheHeadersThatKeepForeignContentOut() {
        ApiClient.Response page = nobody().get("/sign-in");
        assertThat(page.status()).isEqualTo(200);
        assertThat(page.raw().headers().firstValue("Content-Security-Policy").orElseThrow())
                .contains("script-src 'self'")
                .contains("default-src 'none'");
        assertThat(page.body()).contains("<div id=\"root\">").doesNotContain("<style", "style=");
        assertThat(nobody().get("/assets/missing.js").status()).isEqualTo(404);
    }

    /** A style that came in with an answer does not know the word, and shows nothing otherwise than it is. */
    @Test
    public void onlyThePagesOwnStylesAreAllowed() {
        List<String> words = new ArrayList<>();
        for (String path : List.of("/", "/sign-in", "/studies/none/desk")) {
            ApiClient.Response page = nobody().get(path);
            Matcher word = Pattern.compile("<script src=\"[^\"]*/theme.js\" nonce=\"([A-Za-z0-9+/=]{22,})\">")
                    .matcher(page.body());
            assertThat(word.find()).as(page.body()).isTrue();
            words.add(word.group(1));
            assertThat(page.raw()
                            .headers()
                            .firstValue("Content-Security-Policy")
                            .orElseThrow())
                    .contains("style-src 'self' 'nonce-" + word.group(1) + "';")
                    .doesNotContain("unsafe");
            assertThat(page.raw().headers().map())
                    .as("an older page has another word")
                    .doesNotContainKeys("Last-Modified", "ETag");
        }
        assertThat(words).doesNotHaveDuplicates();
        assertThat(nobody().get("/api/session")
                        .raw()
                        .headers()
                        .firstValue("Content-Security-Policy")
                        .orElseThrow())
                .contains("style-src 'self';");
    }
}
