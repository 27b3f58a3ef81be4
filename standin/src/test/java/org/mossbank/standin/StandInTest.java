package org.mossbank.standin;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class StandInTest {
    private static final String ASK_WHOLE = "{\"ask\": {\"words\": \"Why is berth 4 never free?\"}}";
    private static final String ASK_TURNS =
            "{\"exchange\": [{\"by\": \"us\", \"words\": \"Why is berth 4 never free?\"}]}";

    private StandIn standIn;
    private final HttpClient client = HttpClient.newHttpClient();

    @BeforeClass
    void begin() throws IOException {
        Path study = Files.createTempDirectory("stand-in");
        Files.createDirectories(study.resolve("prompts"));
        Files.createDirectories(study.resolve("answers"));
        Files.writeString(study.resolve("prompts/lost-berth.md"), "Why is berth 4 never free?\n");
        Files.writeString(study.resolve("answers/lost-berth-quillwort.md"), "The loop ends one early.\n");
        Files.writeString(study.resolve("answers/lost-berth-brindle.md"), "The last berth is left out of the loop.\n");
        standIn = StandIn.start(0, List.of(study), "a pass");
    }

    @AfterClass
    void end() {
        standIn.close();
    }

    private HttpRequest request(String path, String body, String pass, Duration limit) {
        return HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + standIn.port() + path))
                .timeout(limit)
                .header("X-Pass", pass)
                .POST(HttpRequest.BodyPublishers.ofString(body))
                .build();
    }

    private HttpResponse<String> ask(String path, String body, String pass) throws IOException, InterruptedException {
        return client.send(request(path, body, pass, Duration.ofSeconds(60)), HttpResponse.BodyHandlers.ofString());
    }

    @Test
    public void answersInOneDocument() throws Exception {
        HttpResponse<String> answer = ask("/quillwort?hurry=100", ASK_WHOLE, "a pass");

        // 26 characters asked and 25 said, four a token.
        assertThat(answer.body())
                .isEqualTo(
                        "{\"made_by\":\"quillwort-1\",\"said\":{\"words\":\"The loop ends one early.\\n\"},\"took\":{\"read\":7,\"wrote\":7},\"ended\":\"done\"}");
    }

    @Test
    public void answersInEventsWithOneThatEndsThem() throws Exception {
        HttpResponse<String> answer = ask("/brindle?hurry=100", ASK_TURNS, "a pass");

        assertThat(answer.body())
                .startsWith("data: {\"more\":\"The last berth is left o\"}\n\n")
                .endsWith("\"ended\":\"done\"}\n\ndata: over\n\n");
    }

    /** From the second request on, as a service that is brought up to date in the middle. */
    @Test
    public void aNewerVersionSaysSo() throws Exception {
        assertThat(ask("/tansy?hurry=100&fault=newer", ASK_TURNS, "a pass").statusCode())
                .isEqualTo(200);
        assertThat(ask("/brindle?hurry=100", ASK_TURNS, "a pass").body()).contains("\"made_by\":\"brindle-1\"");
        assertThat(ask("/brindle?hurry=100&fault=newer", ASK_TURNS, "a pass").body())
                .contains("\"made_by\":\"brindle-2\"");
    }

    @Test
    public void anotherAttemptDiffers() throws Exception {
        String again = ASK_WHOLE.replace("{\"ask\"", "{\"take\": 2, \"ask\"");

        assertThat(ask("/quillwort?hurry=100", again, "a pass").body()).contains("Looking at it again");
    }

    @Test
    public void whatItDoesNotKnowItSays() throws Exception {
        assertThat(ask("/tansy?hurry=100", ASK_TURNS.replace("berth", "buoy"), "a pass")
                        .body())
                .contains("I do not know this");
    }

    @DataProvider
    public Object[][] faults() {
        return new Object[][] {
            {"busy", 429, "too many at once"},
            {"error", 500, "something broke"},
            {"denied", 401, "no such pass"},
            {"telltale", 400, "a pass"},
            {"redirect", 307, ""},
            {"refusal", 200, "\"ended\":\"declined\""},
            {"limit", 200, "\"ended\":\"length\""},
        };
    }

    @Test(dataProvider = "faults")
    public void goesWrongOnRequest(String fault, int status, String told) throws Exception {
        HttpResponse<String> answer = ask("/quillwort?hurry=100&fault=" + fault, ASK_WHOLE, "a pass");

        assertThat(answer.statusCode()).isEqualTo(status);
        assertThat(answer.body()).contains(told);
    }

    @Test
    public void stopsHalfWay() throws Exception {
        String whole = ask("/brindle?hurry=100", ASK_TURNS, "a pass").body();

        String half = ask("/brindle?hurry=100&fault=half", ASK_TURNS, "a pass").body();

        assertThat(whole).startsWith(half);
        assertThat(half).isNotEmpty().doesNotContain("ended");
    }

    @Test
    public void holdsTheRestUntilItIsLetGo() throws Exception {
        var lines = client.send(
                        request("/brindle?hurry=100&fault=hold", ASK_TURNS, "a pass", Duration.ofSeconds(60)),
                        HttpResponse.BodyHandlers.ofInputStream())
                .body();
        byte[] first = lines.readNBytes("data: {\"more\":\"The last berth is left o\"}\n\n".length());

        assertThat(new String(first, StandardCharsets.UTF_8)).endsWith("left o\"}\n\n");
        assertThat(lines.available()).as("nothing more comes by itself").isZero();
        standIn.letGo();
        assertThat(new String(lines.readAllBytes(), StandardCharsets.UTF_8)).endsWith("data: over\n\n");
    }

    @Test
    public void hangsUntilWhoeverAskedHasEnough() {
        HttpRequest request = request("/tansy?fault=hang", ASK_TURNS, "a pass", Duration.ofMillis(300));

        assertThatThrownBy(() -> client.send(request, HttpResponse.BodyHandlers.ofString()))
                .isInstanceOf(java.net.http.HttpTimeoutException.class);
    }

    @Test
    public void nobodyIsAnsweredWithoutThePass() throws Exception {
        assertThat(ask("/quillwort?hurry=100", ASK_WHOLE, "another").statusCode())
                .isEqualTo(401);
    }
}
