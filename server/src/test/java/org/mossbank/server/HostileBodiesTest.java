package org.mossbank.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Bodies that are small to send and would be large to take in: each is refused, and soon. */
public class HostileBodiesTest extends ServerTest {

    private HttpResponse<String> send(String path, HttpRequest.BodyPublisher body) throws Exception {
        ApiClient client = nobody();
        HttpRequest request = HttpRequest.newBuilder(address().resolve(path))
                .header("Content-Type", "application/json")
                .header("Cookie", "XSRF-TOKEN=" + client.cookie("XSRF-TOKEN").orElseThrow())
                .header("X-XSRF-TOKEN", client.cookie("XSRF-TOKEN").orElseThrow())
                .POST(body)
                .build();
        return HttpClient.newHttpClient().send(request, HttpResponse.BodyHandlers.ofString());
    }

    @DataProvider
    public Object[][] beforeSignIn() {
        return new Object[][] {{"/api/session"}, {"/api/links/inspect"}, {"/api/links/use"}};
    }

    @Test(dataProvider = "beforeSignIn")
    public void whoHasNotSignedInSendsNoMoreThan64Kilobytes(String path) throws Exception {
        byte[] body = ("{\"name\":\"" + "a".repeat(70_000) + "\"}").getBytes(StandardCharsets.UTF_8);

        assertThat(send(path, HttpRequest.BodyPublishers.ofByteArray(body)).statusCode())
                .as("its length told")
                .isEqualTo(413);
        HttpResponse<String> untold =
                send(path, HttpRequest.BodyPublishers.ofInputStream(() -> new java.io.ByteArrayInputStream(body)));
        assertThat(untold.statusCode()).as("its length not told").isEqualTo(413);
        assertThat(untold.body()).contains("problems/too-large");
    }

    @Test
    public void aFormIsNotReadBeforeItIsKnownWhoSendsIt() {
        byte[] file = new byte[1 << 20];
        assertThat(nobody().upload("/api/studies/archive?again=true", file).status())
                .isEqualTo(401);
        assertThat(nobody().upload("/api/session", file).status()).isIn(400, 413, 415);
    }

    @DataProvider
    public Object[][] bodies() {
        return new Object[][] {
            {"a number of 900 digits", "{\"title\":" + "9".repeat(900) + "}"},
            {"nested 5,000 deep", "{\"title\":" + "[".repeat(5_000) + "]".repeat(5_000) + "}"},
            {"a name of 10,000 characters", "{\"" + "n".repeat(10_000) + "\":1}"},
            {"no JSON", "{\"title\""},
            {"another type", "[1,2,3]"},
            {"U+0000", "{\"title\":\"a\\u0000b\"}"},
            {"nothing", ""},
            {"null", "null"},
        };
    }

    @Test(dataProvider = "bodies")
    public void whatIsNotAsItMustBeIsRefusedAsSuch(String what, String body) {
        ApiClient.Response refused = as(LEAD).raw("POST", "/api/studies", body);
        assertThat(refused.status()).as(what + ": " + refused.body()).isEqualTo(400);
    }

    @Test
    public void theFieldWithTheCharacterThatIsKeptNowhereIsNamed() {
        ApiClient.Response refused = as(LEAD).raw("POST", "/api/studies", "{\"title\":\"a\\u0000b\"}");
        assertThat(refused.json().at("/errors/0/field").asString()).isEqualTo("title");
        assertThat(refused.json().at("/errors/0/message").asString()).contains("U+0000");
        assertThat(as(LEAD).get("/api/studies/%00").status()).isEqualTo(400);
        assertThat(as(LEAD).get("/api/studies?x=%00").status()).isEqualTo(400);
    }

    private static byte[] zipOf(String name, byte[] content, int times) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            zip.putNextEntry(new ZipEntry(name));
            for (int i = 0; i < times; i++) {
                zip.write(content);
            }
            zip.closeEntry();
        }
        return out.toByteArray();
    }

    @Test
    public void whatStandsBehindAFoldersNameIsCounted() throws IOException {
        byte[] bomb = zipOf("folder/", new byte[1 << 20], 300);

        ApiClient.Response refused = as(LEAD).upload("/api/studies/archive?again=true", bomb);

        assertThat(refused.status()).isEqualTo(400);
        assertThat(refused.body()).contains("must unpack to at most");
    }

    @Test
    public void anArchiveThatIsNotWholeIsRefused() {
        byte[] whole = zip(byHand());
        // The last part lists what is in it once more, and is not needed.
        for (int part = 1; part < 6; part++) {
            byte[] cut = Arrays.copyOf(whole, whole.length * part / 8);
            assertThat(as(LEAD).upload("/api/studies/archive?again=true", cut).status())
                    .as(part + "/8")
                    .isEqualTo(400);
        }
    }

    /** Each number alone would be a fault, 450 folders deep: 2 kB when packed. */
    @Test
    public void manyNumbersDeepDownEndNoServer() {
        String deep = "[".repeat(450) + "1,".repeat(1_000_000) + "1" + "]".repeat(450);
        ApiClient.Response refused = as(LEAD).upload(
                        "/api/studies/archive?again=true",
                        zip(Map.of("datapackage.json", bytes("{\"resources\":" + deep + "}"))));
        assertThat(refused.status()).isEqualTo(400);

        String wide = "{\"resources\":[" + "1,".repeat(150_000) + "1]}";
        ApiClient.Response wideRefused =
                as(LEAD).upload("/api/studies/archive?again=true", zip(Map.of("datapackage.json", bytes(wide))));
        assertThat(wideRefused.status()).isEqualTo(400);
        assertThat(wideRefused.json().path("faults").size()).isLessThanOrEqualTo(201);
    }

    @Test
    public void readingStopsAtSoManyFaults() {
        Map<String, byte[]> files = byHand();
        files.put("raters.csv", bytes("rater,name\n" + "x\n".repeat(2_000_000)));
        ApiClient.Response refused = as(LEAD).upload("/api/studies/archive?again=true", zip(files));
        assertThat(refused.status()).isEqualTo(400);
        assertThat(refused.body()).contains("reading stopped at 200");
    }

    @Test
    public void everythingThatIsRefusedIsAProblem() throws Exception {
        assertThat(as(LEAD).get("/error").problem()).isEqualTo("not-found");
        assertThat(as(LEAD).get("/api/nowhere").problem()).isEqualTo("not-found");
        assertThat(as(LEAD).raw("PATCH", "/api/studies", "{}").status()).isEqualTo(405);
        HttpResponse<String> odd = HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(address() + "/api/session"))
                                .header("X-Long", "x".repeat(20_000))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
        assertThat(odd.statusCode()).isEqualTo(400);
        assertThat(odd.headers().firstValue("Content-Type").orElse("")).startsWith("application/problem+json");
    }
}
