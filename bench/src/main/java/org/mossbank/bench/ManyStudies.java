package org.mossbank.bench;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.ServerProcess;
import org.mossbank.testkit.TestDatabase;

/**
 * Two hundred studies on one server, one of them with 250,000 grades: how long the first page and every list take, right after the
 * server was started, and again, for a lead of all and for somebody who grades in many; how two hundred raters grade beside it; and
 * how long the large one takes to go for good.
 */
public final class ManyStudies {
    private static final int STUDIES = 200;
    /** Of them those in which the same people grade, some rounds being open; the others are at their beginning. */
    private static final int GRADED = 60;

    private static final int PROMPTS = 1042;
    private static final int TIMES = 9;
    private static final int RATERS = 200;
    private static final Duration WARM_UP = Duration.ofSeconds(30);
    private static final Duration SPAN = Duration.ofSeconds(60);
    private static final double NANOS_A_MILLI = 1e6;
    private static final String PASSWORD = "tide and lantern";

    private static final List<String> EVERYBODYS = List.of(
            "/api/my-studies",
            "/api/studies",
            "/api/my-studies?part=study+19&order=TITLE",
            "/api/my-studies?from=175",
            "/api/sheets",
            "/api/splits",
            "/api/calibrations",
            "/api/read-backs",
            "/api/reminders",
            "/api/asked",
            "/api/deleted-studies",
            "/api/accounts",
            "/api/audit-events",
            "/api/bank",
            "/api/account");

    private static final List<String> OF_THE_STUDY = List.of(
            "",
            "/steps",
            "/people",
            "/brief",
            "/prompts",
            "/prompts/titles",
            "/candidates",
            "/answers",
            "/rubric",
            "/grading",
            "/agreement",
            "/recommendation",
            "/recommendation/prompts",
            "/memos",
            "/masking",
            "/trials",
            "/runs",
            "/acts",
            "/audit-events",
            "/search?words=level",
            "/search?words=nowhere");

    private ManyStudies() {}

    /** @param arguments the project's folder, and how many prompts the large study has (1,042 if none are given) */
    public static void main(String[] arguments) throws Exception {
        Path root = Path.of(arguments[0]).toAbsolutePath().normalize();
        int prompts = arguments.length > 1 ? Integer.parseInt(arguments[1]) : PROMPTS;
        TestDatabase database = TestDatabase.create();
        String study;
        try (ServerProcess server = started(root, database)) {
            ApiClient lead = signedIn(server);
            study = lead.upload("/api/studies/archive?again=true", WholeArchive.archive(prompts))
                    .json()
                    .path("studyId")
                    .asString();
            for (int i = GRADED; i < STUDIES; i++) {
                lead.post("/api/studies", Map.of("title", "A study " + i));
            }
            bringInGraded(lead);
            ask(lead, paths(study), 1, "in use, the first time");
        }
        try (ServerProcess server = started(root, database)) {
            ApiClient lead = signedIn(server);
            ask(lead, paths(study), 1, "after a new start");
            ask(lead, paths(study), TIMES, "again");
            ApiClient rater = ApiClient.signedIn(server.address(), "bram", PASSWORD);
            ask(rater, EVERYBODYS, 1, "a rater, the first time");
            ask(rater, EVERYBODYS, TIMES, "a rater, again");
            grade(server, database);
            goes(lead, study, database);
        }
    }

    /** Two hundred raters grade another study meanwhile, as if the large one were not there. */
    private static void grade(ServerProcess server, TestDatabase database) throws Exception {
        GradingLoad load = new GradingLoad(WARM_UP, SPAN);
        load.open(ManyRaters.bringIn(server, RATERS));
        load.run();
        load.report(RATERS);
        if (!load.isComplete(database)) {
            throw new IllegalStateException("a grade was refused, lost or doubled");
        }
    }

    /** As its task lets it go a month after it was deleted. */
    private static void goes(ApiClient lead, String study, TestDatabase database) {
        String title = lead.get("/api/studies/" + study).json().path("title").asString();
        long start = System.nanoTime();
        int status = lead.post("/api/studies/" + study + "/deletion", Map.of("title", title))
                .status();
        System.out.printf("deleted: %d, %.0f ms%n", status, (System.nanoTime() - start) / NANOS_A_MILLI);
        try (Connection connection = database.connect();
                PreparedStatement going = connection.prepareStatement("select delete_study(?)")) {
            going.setObject(1, UUID.fromString(study));
            start = System.nanoTime();
            going.execute();
            System.out.printf("gone for good: %.0f ms%n", (System.nanoTime() - start) / NANOS_A_MILLI);
        } catch (SQLException e) {
            throw new IllegalStateException(e);
        }
    }

    private static ServerProcess started(Path root, TestDatabase database) {
        return ServerProcess.startDemo(root, database, Map.of("MOSSBANK_JIT", "4"));
    }

    private static ApiClient signedIn(ServerProcess server) {
        return ApiClient.signedIn(server.address(), "orla", PASSWORD);
    }

    /** Copies of the demo's, every third with its round still open. */
    private static void bringInGraded(ApiClient lead) {
        String demo = lead.get("/api/my-studies?order=OLDEST")
                .json()
                .at("/studies/0/id")
                .asString();
        byte[] archive = lead.get("/api/studies/" + demo + "/archive").raw().body();
        for (int i = 0; i < GRADED; i++) {
            String copy = lead.upload("/api/studies/archive?again=true", archive)
                    .json()
                    .path("studyId")
                    .asString();
            if (i % 3 > 0) {
                lead.post("/api/studies/" + copy + "/round/close", Map.of("reason", "That is all."));
            }
        }
    }

    private static List<String> paths(String study) {
        List<String> all = new ArrayList<>(EVERYBODYS);
        OF_THE_STUDY.forEach(part -> all.add("/api/studies/" + study + part));
        return all;
    }

    private static void ask(ApiClient person, List<String> paths, int times, String when) {
        for (String path : paths) {
            List<Long> took = new ArrayList<>();
            int bytes = 0;
            int status = 0;
            for (int i = 0; i < times; i++) {
                long start = System.nanoTime();
                ApiClient.Response response = person.get(path);
                took.add(System.nanoTime() - start);
                bytes = response.raw().body().length;
                status = response.status();
            }
            took.sort(null);
            System.out.printf(
                    "%s, %s: %.0f ms, slowest %.0f ms, %d bytes, %d%n",
                    path.replaceFirst("/api/studies/[^/?]+", "…"),
                    when,
                    took.get(took.size() / 2) / NANOS_A_MILLI,
                    took.get(took.size() - 1) / NANOS_A_MILLI,
                    bytes,
                    status);
        }
    }
}
