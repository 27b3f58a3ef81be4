package org.mossbank.bench;

import java.io.UncheckedIOException;
import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import org.mossbank.standin.StandIn;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.DemoInPreparation;
import org.mossbank.testkit.ServerProcess;
import org.mossbank.testkit.TestDatabase;
import tools.jackson.databind.JsonNode;

/**
 * Two servers behind a proxy with TLS, below an address of their own: raters grade over both, a run goes on and is followed; one
 * server is killed, and another started. Ends with an error if a grade was lost or doubled, somebody was signed out, the run did
 * not end, a reply was asked for twice, or whoever followed it heard nothing more.
 *
 * <p>Arguments: the folder of the project, for how many seconds, and how many raters.
 */
public final class SeveralServers {
    private static final Duration WARM_UP = Duration.ofSeconds(15);
    private static final String SECRET = "heron under the jetty";
    private static final String BELOW = "/moss";
    private static final Duration PATIENCE = Duration.ofMinutes(3);
    /** Those of the study that is brought in, but for the candidate that has answers already. */
    private static final int CELLS = 10;

    private final Map<String, String> faults = new LinkedHashMap<>();
    private final AtomicBoolean over = new AtomicBoolean();
    private final AtomicInteger heard = new AtomicInteger();

    private SeveralServers() {}

    public static void main(String[] arguments) throws Exception {
        Path root = Path.of(arguments[0]).toAbsolutePath().normalize();
        Duration span = Duration.ofSeconds(Long.parseLong(arguments[1]));
        SeveralServers several = new SeveralServers();
        several.run(root, span, Integer.parseInt(arguments[2]));
        if (!several.faults.isEmpty()) {
            several.faults.forEach((what, how) -> System.err.println(what + ": " + how));
            System.exit(1);
        }
        System.exit(0);
    }

    private void expect(String what, boolean holds, Object how) {
        if (!holds) {
            faults.put(what, String.valueOf(how));
        }
    }

    private void run(Path root, Duration span, int people) throws Exception {
        TestDatabase database = TestDatabase.create();
        Map<String, String> settings = Map.of(
                "MOSSBANK_PATH", BELOW,
                "MOSSBANK_PROXIES", "127.0.0.1",
                "MOSSBANK_ALLOWED_SOURCES", "127.0.0.1",
                "MOSSBANK_HOSTS_STANDIN", "127.0.0.1",
                "MOSSBANK_SECRETS_STANDIN", SECRET,
                "MOSSBANK_JIT", "4",
                "MOSSBANK_CONNECTIONS_PATIENCE_MS", "15000");
        List<ServerProcess> servers = new ArrayList<>();
        servers.add(ServerProcess.startDemo(root, database, settings));
        servers.add(ServerProcess.startDemo(root, database, settings));
        ExecutorService beside = Executors.newFixedThreadPool(2);
        try (Proxy proxy = Proxy.before(
                        root, servers.stream().map(ServerProcess::address).toList());
                StandIn services = StandIn.start(0, List.of(root.resolve("demo-next")), SECRET)) {
            URI address = URI.create(proxy.address() + BELOW);
            ApiClient lead = ApiClient.signedIn(address, "orla", "tide and lantern");
            isSafeBehindTheProxy(address);
            GradingLoad load = new GradingLoad(WARM_UP, span, true);
            load.open(ManyRaters.bringIn(address, people));
            String run = beginRun(root, lead, services);
            beside.execute(() -> follow(lead, run));
            AtomicInteger heardBefore = new AtomicInteger();
            Future<?> replaced = beside.submit(() -> killAndReplace(
                    new Replacing(root, database, settings, servers, proxy, heardBefore), span.dividedBy(4)));
            load.run();
            load.report(people);
            expect("another server was started while they graded", replaced.isDone(), "it was not ready");
            awaitEnd(lead, run);
            over.set(true);
            expect("nobody is signed out", lead.get("/api/account").status() == 200, "the lead is");
            expect("what was acknowledged is there once", load.isComplete(database), "see above");
            expect(
                    "the run was asked for each reply once",
                    services.asked("brindle") + services.asked("tansy") == CELLS,
                    "no");
            expect("live pages go on", heard.get() > heardBefore.get(), heard + " boards, " + heardBefore + " before");
            System.out.printf(
                    "%d boards heard, %d of them before one server was killed%n", heard.get(), heardBefore.get());
        } finally {
            over.set(true);
            beside.shutdownNow();
            servers.forEach(ServerProcess::close);
        }
    }

    /** The cookie of the session, and what browsers are told about the way here. */
    private void isSafeBehindTheProxy(URI address) {
        ApiClient.Response page = ApiClient.stranger(address).get("/sign-in");
        expect("the page says where it stands", page.body().contains("content=\"" + BELOW + "\""), page.body());
        expect("files are named below it", page.body().contains("src=\"" + BELOW + "/theme.js\""), page.body());
        expect(
                "browsers come by TLS alone",
                page.raw().headers().firstValue("Strict-Transport-Security").isPresent(),
                page.raw().headers());
        ApiClient.Response in =
                ApiClient.nobody(address).post("/api/session", Map.of("name", "orla", "password", "tide and lantern"));
        expect("sign-in", in.status() == 200, in.body());
        expect(
                "the session's cookie is for TLS, and for here alone",
                in.raw().headers().allValues("Set-Cookie").stream()
                        .anyMatch(c -> c.startsWith("mossbank-session=")
                                && c.contains("Secure")
                                && c.contains("HttpOnly")
                                && c.contains("Path=" + BELOW)),
                in.raw().headers().allValues("Set-Cookie"));
    }

    private static String beginRun(Path root, ApiClient lead, StandIn services) {
        String study = "/api/studies/"
                + DemoInPreparation.bringInCollecting(root, lead, services.port(), "?fault=slow&hurry=1");
        Map<String, Object> what = Map.of(
                "promptIds",
                ids(lead.get(study + "/prompts").json()),
                "candidateIds",
                lead.get(study + "/candidates")
                        .json()
                        .valueStream()
                        .filter(c -> !c.path("key").asString().equals("quillwort"))
                        .map(c -> c.path("id").asString())
                        .toList(),
                "attempts",
                1,
                "onlyMissing",
                false,
                "followUps",
                0);
        return study + "/runs/"
                + lead.post(study + "/runs", what).json().path("id").asString();
    }

    private static List<String> ids(JsonNode list) {
        return list.valueStream().map(n -> n.path("id").asString()).toList();
    }

    /** As a browser does: where the way breaks off, it is begun anew. */
    private void follow(ApiClient lead, String run) {
        while (!over.get()) {
            try {
                // The first is how it stands; whatever comes after it was told by itself.
                String told = lead.firstEvents(run + "/events", 3);
                heard.addAndGet(Math.max(0, told.split("event:board", -1).length - 2));
                Thread.sleep(Duration.ofSeconds(1).toMillis());
            } catch (UncheckedIOException e) {
                // The server was killed; the next one is asked.
            } catch (InterruptedException e) {
                return;
            }
        }
    }

    private record Replacing(
            Path root,
            TestDatabase database,
            Map<String, String> settings,
            List<ServerProcess> servers,
            Proxy proxy,
            AtomicInteger heardBefore) {}

    private void killAndReplace(Replacing what, Duration after) {
        try {
            Thread.sleep(WARM_UP.plus(after).toMillis());
            what.heardBefore.set(heard.get());
            what.servers.get(0).kill();
            System.out.println("one server was killed");
            what.servers.set(0, ServerProcess.startDemo(what.root, what.database, what.settings));
            what.proxy.servers(what.servers.stream().map(ServerProcess::address).toList());
            System.out.println("another was started, and the proxy knows it");
        } catch (Exception e) {
            faults.put("another server was started", String.valueOf(e));
        }
    }

    private void awaitEnd(ApiClient lead, String run) throws InterruptedException {
        long last = System.nanoTime() + PATIENCE.toNanos();
        JsonNode board = lead.get(run).json();
        while (!board.path("state").asString().equals("FINISHED") && System.nanoTime() < last) {
            Thread.sleep(Duration.ofSeconds(1).toMillis());
            board = lead.get(run).json();
        }
        expect("the run ends", board.path("state").asString().equals("FINISHED"), board.path("state"));
    }
}
