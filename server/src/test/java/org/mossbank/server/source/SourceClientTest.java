package org.mossbank.server.source;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import org.mossbank.standin.StandIn;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Every fault of the stand-in, and every way to an address that must not be reached. */
public class SourceClientTest {
    private static final String PASS = "heron under the jetty";
    private static final Secrets SECRETS =
            new Secrets(Map.of("standin", PASS), Map.of("standin", "127.0.0.1,models.example"));
    private static final List<Turn> ASKED = List.of(new Turn("Why is berth 4 never free?", null));

    private StandIn standIn;
    private SourceClient client;

    @BeforeClass
    void begin() throws IOException {
        Path study = Files.createTempDirectory("canned");
        Files.createDirectories(study.resolve("prompts"));
        Files.createDirectories(study.resolve("answers"));
        Files.writeString(study.resolve("prompts/lost-berth.md"), "Why is berth 4 never free?\n");
        Files.writeString(study.resolve("answers/lost-berth-quillwort.md"), "The loop ends one early.\n");
        Files.writeString(
                study.resolve("answers/lost-berth-brindle.md"),
                "The last berth is left out of the loop, so it stays.\n");
        standIn = StandIn.start(0, List.of(study), PASS);
        client = client("127.0.0.1");
    }

    @AfterClass
    void end() throws IOException {
        client.destroy();
        standIn.close();
    }

    private static SourceClient client(String... allowed) {
        return new SourceClient(
                new AllowedAddresses(List.of(allowed)), SECRETS, InetAddress::getAllByName, Clock.systemUTC());
    }

    private SourceContent source(String service, String query) {
        boolean whole = service.equals("quillwort");
        SourceContent plain = whole
                ? BodyTemplateTest.source(SourceContent.Shape.WHOLE, "{\"ask\": {\"words\": \"[[prompt]]\"}}", "", "")
                : BodyTemplateTest.source(
                        SourceContent.Shape.EVENTS,
                        "{\"exchange\": \"[[turns]]\"}",
                        "{\"by\": \"us\", \"words\": \"[[text]]\"}",
                        "{\"by\": \"you\", \"words\": \"[[text]]\"}");
        boolean counted = !service.equals("tansy");
        return new SourceContent(
                "http://127.0.0.1:" + standIn.port() + "/" + service + "?hurry=50" + query,
                plain.method(),
                List.of(new SourceContent.Header("X-Pass", "[[secret STANDIN]]")),
                plain.body(),
                plain.turnAsked(),
                plain.turnReplied(),
                plain.shape(),
                whole ? "/said/words" : "/more",
                counted ? "/took/read" : "",
                counted ? "/took/wrote" : "",
                counted ? "/ended" : "",
                counted ? "/made_by" : "",
                counted ? List.of("done") : List.of(),
                List.of("declined"),
                service.equals("brindle") ? "over" : "",
                500,
                2000,
                3,
                2);
    }

    private Reply ask(String service, String query) {
        return client.ask(source(service, query), ASKED, 1, (text, ms) -> {}, new SourceClient.Cancel());
    }

    @Test
    public void oneDocumentIsReadWithItsCounts() {
        Reply reply = ask("quillwort", "");

        assertThat(reply.ending()).isEqualTo(Reply.Ending.COMPLETE);
        assertThat(reply.text()).isEqualTo("The loop ends one early.\n");
        // By the stand-in's count: 26 and 25 characters, four a token.
        assertThat(reply.inputTokens()).isEqualTo(7);
        assertThat(reply.outputTokens()).isEqualTo(7);
        assertThat(reply.firstOutputMs()).isNotNull().isLessThanOrEqualTo(reply.totalMs());
    }

    @Test
    public void whatSaysItAnsweredIsRead() {
        assertThat(ask("quillwort", "").model()).isEqualTo("quillwort-1");
        assertThat(ask("brindle", "").model()).isEqualTo("brindle-1");
        assertThat(ask("tansy", "").model()).isNull();
        assertThat(ask("quillwort", "&fault=newer").model()).isEqualTo("quillwort-2");
    }

    @Test
    public void eventsAreReadAsTheyCome() {
        List<String> seen = new ArrayList<>();

        Reply reply =
                client.ask(source("brindle", ""), ASKED, 1, (text, ms) -> seen.add(text), new SourceClient.Cancel());

        assertThat(reply.ending()).isEqualTo(Reply.Ending.COMPLETE);
        assertThat(seen).hasSizeGreaterThan(1).isSorted();
        assertThat(seen.get(seen.size() - 1)).isEqualTo(reply.text());
        assertThat(reply.outputTokens()).isEqualTo(14);
    }

    @Test
    public void aStreamThatJustEndsHasNoCounts() {
        Reply reply = ask("tansy", "");

        assertThat(reply.ending()).isEqualTo(Reply.Ending.COMPLETE);
        assertThat(reply.inputTokens()).isNull();
        assertThat(reply.outputTokens()).isNull();
    }

    @DataProvider
    public Object[][] faults() {
        return new Object[][] {
            // service, fault, ending, whether nothing can have been paid, whether to try again, reason
            {"quillwort", "busy", Reply.Ending.FAILED, true, true, "It answered 429"},
            {"quillwort", "error", Reply.Ending.FAILED, true, true, "It answered 500: {\"fault\": \"something broke\"}"
            },
            {"quillwort", "denied", Reply.Ending.FAILED, true, false, "It answered 401"},
            {"quillwort", "redirect", Reply.Ending.FAILED, true, false, "redirect"},
            {"quillwort", "malformed", Reply.Ending.FAILED, false, false, "no JSON"},
            {"quillwort", "half", Reply.Ending.FAILED, false, false, "no JSON"},
            {"quillwort", "refusal", Reply.Ending.REFUSED, false, false, "It refused."},
            {"quillwort", "limit", Reply.Ending.INCOMPLETE, false, false, "“length”"},
            {"quillwort", "hang", Reply.Ending.TIMED_OUT, false, false, "longer than 2 s"},
            {"brindle", "half", Reply.Ending.INCOMPLETE, false, false, "half way"},
            {"brindle", "malformed", Reply.Ending.INCOMPLETE, false, false, "no JSON"},
            {"brindle", "hang", Reply.Ending.TIMED_OUT, false, false, "longer than 2 s"},
            {"brindle", "refusal", Reply.Ending.REFUSED, false, false, "It refused."},
        };
    }

    @Test(dataProvider = "faults")
    public void eachFaultHasItsEnding(
            String service, String fault, Reply.Ending ending, boolean free, boolean retry, String reason) {
        Reply reply = ask(service, "&fault=" + fault);

        assertThat(reply.ending()).as(reply.reason()).isEqualTo(ending);
        assertThat(reply.free()).isEqualTo(free);
        assertThat(reply.retry()).isEqualTo(retry);
        assertThat(reply.reason()).contains(reason);
    }

    @Test
    public void whatCameBeforeTheEndIsKept() {
        assertThat("The last berth is left out of the loop, so it stays.\n")
                .startsWith(ask("brindle", "&fault=half").text())
                .isNotEqualTo(ask("brindle", "&fault=half").text());
    }

    @Test
    public void aServiceThatIsBusySaysHowLong() {
        assertThat(ask("quillwort", "&fault=busy").retryAfter()).isEqualTo(Duration.ofSeconds(1));
    }

    @Test
    public void cuttingOffKeepsWhatCame() {
        SourceClient.Cancel cancel = new SourceClient.Cancel();

        Reply reply = client.ask(source("brindle", "&fault=slow"), ASKED, 1, (text, ms) -> cancel.cancel(), cancel);

        assertThat(reply.ending()).isEqualTo(Reply.Ending.INCOMPLETE);
        assertThat(reply.text()).isNotEmpty();
        assertThat(reply.reason()).isEqualTo("It was cut off.");
    }

    @Test
    public void aSecretThatComesBackIsHidden() {
        Reply reply = ask("quillwort", "&fault=telltale");

        assertThat(reply.reason()).contains("(secret)").doesNotContain(PASS);
        assertThat(SECRETS.toString()).doesNotContain(PASS);
    }

    @Test
    public void nobodyIsAskedWhoIsNotAllowed() throws IOException {
        SourceClient other = client("models.example");
        int before = standIn.asked("quillwort");

        Reply reply = other.ask(source("quillwort", ""), ASKED, 1, (text, ms) -> {}, new SourceClient.Cancel());

        assertThat(reply.reason()).contains("administrator allows");
        assertThat(reply.retry()).isFalse();
        assertThat(standIn.asked("quillwort")).isEqualTo(before);
        other.destroy();
    }

    /** A name that meant a public address when the source was written means this machine when it is asked. */
    @Test
    public void aNameThatMeansAnotherAddressLaterIsRefused() throws IOException {
        AtomicInteger lookUps = new AtomicInteger();
        InetAddress[] publicOne = {InetAddress.getByName("93.184.216.34")};
        InetAddress[] here = {InetAddress.getByName("127.0.0.1")};
        SourceClient rebound = new SourceClient(
                new AllowedAddresses(List.of("models.example")),
                SECRETS,
                host -> lookUps.getAndIncrement() > 0 ? publicOne : here,
                Clock.systemUTC());
        int before = standIn.asked("quillwort");
        SourceContent plain = source("quillwort", "");
        SourceContent named = withUrl(plain, plain.url().replace("127.0.0.1", "models.example"));

        Reply reply = rebound.ask(named, ASKED, 1, (text, ms) -> {}, new SourceClient.Cancel());

        assertThat(reply.reason())
                .isEqualTo("The address that models.example means is none that this server's administrator allows.");
        assertThat(lookUps)
                .as("looked up once: what was checked is what is connected to")
                .hasValue(1);
        assertThat(standIn.asked("quillwort")).isEqualTo(before);
        rebound.destroy();
    }

    /** A redirect could carry the secret to another place; the place is never asked. */
    @Test
    public void redirectsAreNotFollowed() throws IOException {
        AtomicInteger reached = new AtomicInteger();
        HttpServer inner = HttpServer.create(new InetSocketAddress(InetAddress.getByName("127.0.0.1"), 0), 0);
        inner.createContext("/", exchange -> {
            reached.incrementAndGet();
            exchange.sendResponseHeaders(200, -1);
            exchange.close();
        });
        inner.createContext("/from", exchange -> {
            exchange.getResponseHeaders()
                    .set("Location", "http://127.0.0.1:" + inner.getAddress().getPort() + "/inner");
            exchange.sendResponseHeaders(307, -1);
            exchange.close();
        });
        inner.start();
        SourceContent source = withUrl(
                source("quillwort", ""),
                "http://127.0.0.1:" + inner.getAddress().getPort() + "/from");

        Reply reply = client.ask(source, ASKED, 1, (text, ms) -> {}, new SourceClient.Cancel());

        assertThat(reply.reason()).isEqualTo("It answered with a redirect, which is not followed.");
        assertThat(reached).hasValue(0);
        inner.stop(0);
    }

    /** The secret stands where a name is cut: were it cut first, the beginning of it would be left. */
    @Test
    public void aModelThatIsCalledByASecretIsNotToldByIt() throws IOException {
        String called = "x".repeat(90) + " " + PASS + " y; z";
        HttpServer inner = HttpServer.create(new InetSocketAddress(InetAddress.getByName("127.0.0.1"), 0), 0);
        inner.createContext("/", exchange -> {
            byte[] said =
                    ("{\"said\":{\"words\":\"Here.\"},\"ended\":\"done\",\"made_by\":\"" + called + "\"}").getBytes();
            exchange.sendResponseHeaders(200, said.length);
            exchange.getResponseBody().write(said);
            exchange.close();
        });
        inner.start();
        Reply reply = client.ask(
                withUrl(
                        source("quillwort", ""),
                        "http://127.0.0.1:" + inner.getAddress().getPort() + "/"),
                ASKED,
                1,
                (text, ms) -> {},
                new SourceClient.Cancel());

        assertThat(reply.model())
                .hasSize(100)
                .startsWith("x".repeat(90) + " (secret)")
                .doesNotContain("heron", ";");
        inner.stop(0);
    }

    @Test
    public void aServiceThatIsNotThereCanBeTriedAgain() {
        Reply reply = client.ask(
                withUrl(source("quillwort", ""), "http://127.0.0.1:1/"),
                ASKED,
                1,
                (text, ms) -> {},
                new SourceClient.Cancel());

        assertThat(reply.reason()).isEqualTo("It could not be reached.");
        assertThat(reply.retry()).isTrue();
    }

    private static SourceContent withUrl(SourceContent s, String url) {
        return new SourceContent(
                url,
                s.method(),
                s.headers(),
                s.body(),
                s.turnAsked(),
                s.turnReplied(),
                s.shape(),
                s.textPointer(),
                s.inputTokensPointer(),
                s.outputTokensPointer(),
                s.finishPointer(),
                s.modelPointer(),
                s.completeWords(),
                s.refusedWords(),
                s.endMark(),
                s.mostOutputTokens(),
                s.timeLimitMs(),
                s.mostTries(),
                s.mostAtOnce());
    }
}
