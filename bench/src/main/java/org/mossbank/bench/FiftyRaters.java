package org.mossbank.bench;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.ServerProcess;
import org.mossbank.testkit.TestDatabase;
import tools.jackson.databind.JsonNode;

/** Fifty raters grade one study at once for a minute, each as fast as the server answers; all on loopback. */
public final class FiftyRaters {
    private static final int RATERS = 50;
    private static final int PROMPTS = 10;
    private static final Duration SPAN = Duration.ofMinutes(1);
    private static final String PASSWORD = "a password to bench with";

    private FiftyRaters() {}

    public static void main(String[] arguments) throws IOException, InterruptedException, ExecutionException {
        try (ServerProcess server =
                ServerProcess.startDemo(Path.of(arguments[0]).toAbsolutePath().normalize(), TestDatabase.create())) {
            ApiClient lead = ApiClient.signedIn(server.address(), "orla", "tide and lantern");
            JsonNode brought = lead.upload("/api/studies/archive", archive()).json();
            List<ApiClient> raters = new ArrayList<>();
            for (JsonNode invitation : brought.path("invitations")) {
                ApiClient rater = ApiClient.nobody(server.address());
                rater.post(
                        "/api/links/use",
                        Map.of(
                                "token", invitation.path("token").asString(),
                                "displayName", invitation.path("name").asString(),
                                "password", PASSWORD));
                raters.add(rater);
            }
            report(run(raters));
        }
    }

    private static List<Long> run(List<ApiClient> raters) throws InterruptedException, ExecutionException {
        ExecutorService pool = Executors.newFixedThreadPool(RATERS);
        long end = System.nanoTime() + SPAN.toNanos();
        List<Future<List<Long>>> futures = new ArrayList<>();
        for (ApiClient rater : raters) {
            futures.add(pool.submit(() -> gradeUntil(rater, end)));
        }
        List<Long> all = new ArrayList<>();
        for (Future<List<Long>> future : futures) {
            all.addAll(future.get());
        }
        pool.shutdown();
        return all;
    }

    private static List<Long> gradeUntil(ApiClient rater, long end) {
        List<Long> nanos = new ArrayList<>();
        List<JsonNode> sheets = new ArrayList<>();
        rater.get("/api/sheets").json().forEach(sheets::add);
        for (int round = 0; System.nanoTime() < end; round++) {
            String sheet = sheets.get(round % sheets.size()).path("id").asString();
            for (JsonNode answer : rater.get("/api/sheets/" + sheet).json().path("answers")) {
                for (JsonNode grade : answer.path("grades")) {
                    long start = System.nanoTime();
                    if (start > end) {
                        return nanos;
                    }
                    ApiClient.Response response = rater.put(
                            "/api/sheets/" + sheet + "/answers/"
                                    + answer.path("id").asString() + "/grades/"
                                    + grade.path("criterionId").asString(),
                            Map.of(
                                    "changeId",
                                    UUID.randomUUID().toString(),
                                    "baseRevision",
                                    grade.path("revision").asLong(),
                                    "level",
                                    round % 5,
                                    "notApplicable",
                                    false));
                    if (response.status() != 200) {
                        throw new IllegalStateException("a grade was refused: " + response.body());
                    }
                    nanos.add(System.nanoTime() - start);
                }
            }
        }
        return nanos;
    }

    private static void report(List<Long> nanos) {
        nanos.sort(null);
        System.out.printf(
                "%d raters, %d s: %d grades acknowledged, %.0f a second; median %.1f ms, 95th percentile %.1f ms,"
                        + " slowest %.1f ms%n",
                RATERS,
                SPAN.toSeconds(),
                nanos.size(),
                nanos.size() / (double) SPAN.toSeconds(),
                at(nanos, 0.5),
                at(nanos, 0.95),
                at(nanos, 1));
    }

    private static double at(List<Long> sorted, double share) {
        return sorted.get((int) Math.min(sorted.size() - 1, Math.floor(share * sorted.size()))) / 1e6;
    }

    private static byte[] archive() throws IOException {
        StringBuilder prompts = new StringBuilder("prompt,kind,title,file\n");
        StringBuilder answers = new StringBuilder("answer,prompt,candidate,attempt,outcome,file\n");
        StringBuilder raters = new StringBuilder("rater,name\n");
        for (int p = 0; p < PROMPTS; p++) {
            prompts.append("p%d,debugging,Prompt %d,text.md%n".formatted(p, p));
            for (int c = 0; c < 3; c++) {
                answers.append("p%d-c%d,p%d,c%d,1,complete,text.md%n".formatted(p, c, p, c));
            }
        }
        for (int r = 0; r < RATERS; r++) {
            raters.append("bench%d,Bench %d%n".formatted(r, r));
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            put(zip, "datapackage.json", """
                    {"name": "bench", "mossbank": {"format": 1}, "resources": [
                    {"name": "study", "path": "study.json"}, {"name": "kinds", "path": "kinds.csv"},
                    {"name": "prompts", "path": "prompts.csv"}, {"name": "candidates", "path": "candidates.csv"},
                    {"name": "answers", "path": "answers.csv"}, {"name": "criteria", "path": "criteria.csv"},
                    {"name": "raters", "path": "raters.csv"}]}""");
            put(zip, "study.json", """
                    {"title": "Bench", "question": "How fast?", "audience": "us", "seed": 1,
                    "decisionRule": {"agreementFloor": 0.5, "margin": 5, "minimumRaters": 2}}""");
            put(zip, "kinds.csv", "kind,name\ndebugging,Debugging\n");
            put(zip, "candidates.csv", "candidate,name\nc0,One\nc1,Two\nc2,Three\n");
            put(zip, "criteria.csv", "criterion,name,question,weight,highest_level\na,A,?,1,4\nb,B,?,1,4\nc,C,?,1,4\n");
            put(zip, "prompts.csv", prompts.toString());
            put(zip, "answers.csv", answers.toString());
            put(zip, "raters.csv", raters.toString());
            put(zip, "text.md", "Some text. ".repeat(200));
        }
        return out.toByteArray();
    }

    private static void put(ZipOutputStream zip, String name, String text) throws IOException {
        zip.putNextEntry(new ZipEntry(name));
        zip.write(text.getBytes(StandardCharsets.UTF_8));
        zip.closeEntry();
    }
}
