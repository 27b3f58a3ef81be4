package org.mossbank.bench;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.ServerProcess;
import org.mossbank.testkit.TestDatabase;

/**
 * Fifty raters grade while others send what is cheap to send and dear to take in: wrong passwords, large bodies, archives that
 * unpack to more than they may, answers that are hard to compare and to search. Ends with an error if a grade was lost or
 * refused, or the server was gone; tells how long grades took and what memory did.
 *
 * <p>Arguments: the folder of the project, and for how many seconds.
 */
public final class UnderAttack {
    private static final int RATERS = 50;
    private static final Duration WARM_UP = Duration.ofSeconds(10);
    private static final int PAUSE_MS = 200;

    private final ServerProcess server;
    private final AtomicBoolean over = new AtomicBoolean();
    private final AtomicInteger attacks = new AtomicInteger();
    private final AtomicInteger failures = new AtomicInteger();
    private final AtomicLong names = new AtomicLong();

    private UnderAttack(ServerProcess server) {
        this.server = server;
    }

    public static void main(String[] arguments) throws Exception {
        Path root = Path.of(arguments[0]).toAbsolutePath().normalize();
        Duration span = Duration.ofSeconds(Long.parseLong(arguments[1]));
        TestDatabase database = TestDatabase.create();
        boolean whole;
        try (ServerProcess server =
                ServerProcess.startDemo(root, database, Map.of("MOSSBANK_JIT", "4", "MOSSBANK_PROXIES", "127.0.0.1"))) {
            List<ManyRaters.Rater> raters = ManyRaters.bringIn(server, RATERS);
            System.out.println(raters.size() + " raters are signed in");
            GradingLoad load = new GradingLoad(WARM_UP, span);
            UnderAttack attack = new UnderAttack(server);
            load.open(raters);
            ExecutorService others = attack.begin();
            try (ResidentMemory memory = ResidentMemory.watch(server, span)) {
                load.run();
                memory.report();
            } finally {
                attack.over.set(true);
                others.shutdown();
            }
            if (!others.awaitTermination(2, TimeUnit.MINUTES)) {
                attack.failures.incrementAndGet();
                System.err.println("an attack was still not answered after two minutes");
            }
            load.report(RATERS);
            whole = load.isComplete(database) && server.isAlive() && attack.failures.get() == 0;
            System.out.printf("%d attacks, %d answered with 500%n", attack.attacks.get(), attack.failures.get());
        }
        if (!whole) {
            System.exit(1);
        }
    }

    private interface Attack {
        int send(ApiClient lead) throws IOException;
    }

    private ExecutorService begin() throws IOException {
        ExecutorService others = Executors.newCachedThreadPool(task -> {
            Thread thread = new Thread(task, "attack");
            // So that what fails here ends the process and does not wait for them.
            thread.setDaemon(true);
            return thread;
        });
        ApiClient lead = ApiClient.signedIn(server.address(), "orla", "tide and lantern");
        String study = "/api/studies/"
                + lead.post("/api/studies", Map.of("title", "Hostile"))
                        .json()
                        .path("id")
                        .asString();
        String kind = lead.get(study + "/kinds").json().at("/0/id").asString();
        String prompt = lead.post(study + "/prompts", Map.of("kindId", kind, "title", "Why?"))
                .json()
                .path("id")
                .asString();
        String candidate = lead.post(study + "/candidates", Map.of("name", "Quillwort"))
                .json()
                .path("id")
                .asString();
        byte[] folders = zip("folder/", new byte[1 << 20], 250);
        byte[] rows = zip("raters.csv", "x\n".repeat(100_000).getBytes(StandardCharsets.UTF_8), 20);
        String numbers = "[".repeat(450) + "1,".repeat(1_000_000) + "1" + "]".repeat(450);
        byte[] deep = zip("datapackage.json", numbers.getBytes(StandardCharsets.UTF_8), 1);
        List<Attack> all = new ArrayList<>();
        for (int i = 0; i < 24; i++) {
            ApiClient stranger = ApiClient.nobody(server.address());
            all.add(l -> wrongPassword(stranger));
        }
        ApiClient nobody = ApiClient.nobody(server.address());
        String large = "x".repeat(3 << 20);
        all.add(l -> nobody.raw("POST", "/api/session", large).status());
        all.add(l -> l.upload("/api/studies/archive?again=true", folders).status());
        all.add(l -> l.upload("/api/studies/archive?again=true", rows).status());
        all.add(l -> l.upload("/api/studies/archive?again=true", deep).status());
        String[] texts = {
            "```java\nclass A {\nx();\n}\n```\n".repeat(15_000),
            "```java\n" + "a/".repeat(100_000) + "\n```\n",
            "I was created by " + "A ".repeat(200_000),
            "`x` Quillwort ".repeat(20_000),
            "written by ".repeat(40_000),
        };
        for (String text : texts) {
            all.add(l -> l.post(
                            study + "/answers",
                            Map.of(
                                    "promptId",
                                    prompt,
                                    "candidateId",
                                    candidate,
                                    "outcome",
                                    "COMPLETE",
                                    "text",
                                    text,
                                    "followUps",
                                    List.of(),
                                    "measures",
                                    Map.of("estimated", false)))
                    .status());
        }
        all.add(l -> l.get(study + "/masking").status());
        all.add(l -> l.get(study + "/steps").status());
        for (Attack attack : all) {
            others.execute(() -> again(attack, lead));
        }
        return others;
    }

    private int wrongPassword(ApiClient client) {
        long number = names.incrementAndGet();
        client.header("X-Forwarded-For", "198.51.%d.%d".formatted(number / 250 % 250, number % 250));
        return client.post("/api/session", Map.of("name", "name" + number, "password", "a guess of many"))
                .status();
    }

    private void again(Attack attack, ApiClient lead) {
        while (!over.get()) {
            try {
                attacks.incrementAndGet();
                int status = attack.send(lead);
                if (status == 500) {
                    failures.incrementAndGet();
                }
                TimeUnit.MILLISECONDS.sleep(PAUSE_MS);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                return;
            } catch (IOException | RuntimeException e) {
                // Cut off while it was sending what nobody wanted to read.
            }
        }
    }

    private static byte[] zip(String name, byte[] part, int times) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            zip.putNextEntry(new ZipEntry(name));
            for (int i = 0; i < times; i++) {
                zip.write(part);
            }
            zip.closeEntry();
        }
        return out.toByteArray();
    }
}
