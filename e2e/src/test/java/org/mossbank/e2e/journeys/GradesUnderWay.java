package org.mossbank.e2e.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.UncheckedIOException;
import java.net.URI;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import org.mossbank.testkit.ApiClient;
import tools.jackson.databind.JsonNode;

/** Raters who send grades until the server is gone, and what it had acknowledged. */
final class GradesUnderWay {
    private static final String PASSWORD = "tide and lantern";
    private static final List<String> RATERS = List.of("tove", "juri");
    private static final int ENOUGH = 150;

    private record Acknowledged(int level, long revision) {}

    private final Map<String, Acknowledged> acknowledged = new ConcurrentHashMap<>();
    private final CountDownLatch enough = new CountDownLatch(ENOUGH);
    private final ExecutorService raters = Executors.newFixedThreadPool(RATERS.size());

    void begin(URI address) {
        RATERS.forEach(name -> raters.execute(() -> gradeUntilTheServerIsGone(address, name, acknowledged, enough)));
        raters.shutdown();
    }

    void awaitEnough() throws InterruptedException {
        assertThat(enough.await(3, TimeUnit.MINUTES)).isTrue();
    }

    void awaitEnd() throws InterruptedException {
        assertThat(raters.awaitTermination(2, TimeUnit.MINUTES)).isTrue();
    }

    void areThere(URI address) {
        Map<String, Acknowledged> found = new ConcurrentHashMap<>();
        for (String name : RATERS) {
            ApiClient rater = ApiClient.signedIn(address, name, PASSWORD);
            eachCell(
                    rater,
                    (path, grade) -> found.put(
                            path,
                            new Acknowledged(
                                    grade.path("level").asInt(-1),
                                    grade.path("revision").asLong())));
        }
        assertThat(acknowledged).isNotEmpty().allSatisfy((cell, grade) -> {
            // One more may have been written whose answer the kill cut off; none may be lost.
            assertThat(found.get(cell).revision()).isBetween(grade.revision(), grade.revision() + 1);
            if (found.get(cell).revision() == grade.revision()) {
                assertThat(found.get(cell)).isEqualTo(grade);
            }
        });
    }

    private interface Cell {
        void visit(String path, JsonNode grade);
    }

    private static void eachCell(ApiClient rater, Cell cell) {
        for (JsonNode summary : rater.get("/api/sheets").json()) {
            if (summary.has("sentAt")) {
                continue;
            }
            String sheet = summary.path("id").asString();
            for (JsonNode answer : rater.get("/api/sheets/" + sheet).json().path("answers")) {
                for (JsonNode grade : answer.path("grades")) {
                    cell.visit(
                            "/api/sheets/" + sheet + "/answers/"
                                    + answer.path("id").asString() + "/grades/"
                                    + grade.path("criterionId").asString(),
                            grade);
                }
            }
        }
    }

    private static void gradeUntilTheServerIsGone(
            URI address, String name, Map<String, Acknowledged> acknowledged, CountDownLatch enough) {
        try {
            ApiClient rater = ApiClient.signedIn(address, name, PASSWORD);
            Map<String, Long> revisions = new ConcurrentHashMap<>();
            eachCell(
                    rater,
                    (path, grade) -> revisions.put(path, grade.path("revision").asLong()));
            for (int round = 0; ; round++) {
                for (Map.Entry<String, Long> cell : revisions.entrySet()) {
                    int level = round % 5;
                    JsonNode saved = rater.put(
                                    cell.getKey(),
                                    Map.of(
                                            "changeId",
                                            UUID.randomUUID().toString(),
                                            "baseRevision",
                                            cell.getValue(),
                                            "level",
                                            level,
                                            "notApplicable",
                                            false))
                            .json();
                    cell.setValue(saved.path("revision").asLong());
                    acknowledged.put(cell.getKey(), new Acknowledged(level, cell.getValue()));
                    enough.countDown();
                }
            }
        } catch (UncheckedIOException e) {
            // The kill; what was acknowledged until then is what counts.
        }
    }
}
