package org.mossbank.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.DemoInPreparation;
import org.mossbank.testkit.ServerProcess;
import org.mossbank.testkit.SheetWork;
import org.mossbank.testkit.TestDatabase;
import tools.jackson.databind.JsonNode;

/**
 * Trials of the demo's answers: one of a Java answer, all of them, an input of a rater's own, and grading while trials run.
 *
 * <p>Argument: the folder of the project.
 */
public final class TrialsBeside {
    private static final String PASSWORD = "tide and lantern";
    private static final int TIMES = 5;
    private static final int RATERS = 50;
    private static final Duration WARM_UP = Duration.ofSeconds(20);
    private static final Duration SPAN = Duration.ofSeconds(60);
    private static final double NANOS_A_SECOND = 1e9;

    private TrialsBeside() {}

    private static <T> T timed(String what, Supplier<T> work) {
        long begun = System.nanoTime();
        T result = work.get();
        System.out.printf("%s: %.2f s%n", what, (System.nanoTime() - begun) / NANOS_A_SECOND);
        return result;
    }

    private static JsonNode ok(ApiClient.Response response) {
        if (response.status() != 200) {
            throw new IllegalStateException(response.body());
        }
        return response.json();
    }

    private static void oneJavaAnswer(ApiClient lead, String study) {
        JsonNode check = lead.get(study + "/checks")
                .json()
                .valueStream()
                .filter(c -> c.at("/content/toolchain").asString().equals("java"))
                .filter(c -> c.at("/content/loose/path").asString().equals("DriftAlarm.java"))
                .findFirst()
                .orElseThrow();
        String prompt = check.path("promptId").asString();
        String answer = lead.get(study + "/answers")
                .json()
                .valueStream()
                .filter(a -> a.path("key").asString().equals("debug-drift-alarm-quillwort"))
                .findFirst()
                .orElseThrow()
                .path("id")
                .asString();
        for (int i = 0; i < TIMES; i++) {
            timed(
                    "a Java answer, built, five tests",
                    () -> ok(lead.post(
                            study + "/prompts/" + prompt + "/check/try",
                            Map.of("subject", "ANSWER", "answerId", answer, "content", check.path("content")))));
        }
    }

    private static void begin(ApiClient lead, String study, int repetitions) {
        ok(lead.post(study + "/trials", Map.of("promptIds", List.of(), "repetitions", repetitions)));
    }

    private static int awaitAll(ApiClient lead, String study) {
        try {
            JsonNode trials = lead.get(study + "/trials").json().path("trials");
            while (trials.valueStream()
                    .anyMatch(t -> !t.path("state").asString().equals("ENDED"))) {
                Thread.sleep(200);
                trials = lead.get(study + "/trials").json().path("trials");
            }
            return trials.size();
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    private static long open(ApiClient lead, String study) {
        return lead.get(study + "/trials")
                .json()
                .path("trials")
                .valueStream()
                .filter(t -> !t.path("state").asString().equals("ENDED"))
                .count();
    }

    private static String ofTitle(JsonNode prompts, String title) {
        return prompts.valueStream()
                .filter(p -> p.at("/content/title").asString().equals(title))
                .findFirst()
                .orElseThrow()
                .path("id")
                .asString();
    }

    /** Of five steps: one answer, and three seven times. */
    private static void timePages(ApiClient lead, String study, String prompt) {
        JsonNode content = lead.get(study + "/checks")
                .json()
                .valueStream()
                .filter(c -> c.path("promptId").asString().equals(prompt))
                .findFirst()
                .orElseThrow()
                .path("content");
        String answer = lead.get(study + "/answers")
                .json()
                .valueStream()
                .filter(a -> a.path("key").asString().equals("debug-give-up-berth-brindle"))
                .findFirst()
                .orElseThrow()
                .path("id")
                .asString();
        for (int i = 0; i < TIMES; i++) {
            JsonNode came = timed(
                    "a page of five steps",
                    () -> ok(lead.post(
                            study + "/prompts/" + prompt + "/check/try",
                            Map.of("subject", "ANSWER", "answerId", answer, "content", content))));
            if (came.path("pictures").size() != 5) {
                throw new IllegalStateException(came.toString());
            }
        }
        int trials = timed("three answers with a page of five steps, each seven times", () -> {
            ok(lead.post(study + "/trials", Map.of("promptIds", List.of(prompt), "repetitions", 7)));
            return awaitAll(lead, study);
        });
        System.out.println(trials + " trials of pages");
    }

    /** Over the five answers of a sheet, one after the other, as a client asks for two at a time at most. */
    private static void ownInput(ServerProcess server) {
        ApiClient rater = ApiClient.signedIn(server.address(), "juri", PASSWORD);
        String sheet = "/api/sheets/"
                + rater.get("/api/sheets")
                        .json()
                        .valueStream()
                        .filter(s -> s.path("promptTitle").asString().startsWith("Service visits"))
                        .findFirst()
                        .orElseThrow()
                        .path("id")
                        .asString();
        JsonNode view = rater.get(sheet).json();
        List<String> answers = new ArrayList<>();
        for (JsonNode answer : view.path("answers")) {
            answers.add(answer.path("id").asString());
            String criterion = view.at("/criteria/0/id").asString();
            rater.put(
                    SheetWork.gradePath(sheet.substring("/api/sheets/".length()), answer, criterion),
                    SheetWork.grade(0, 2));
        }
        for (int i = 0; i < TIMES; i++) {
            String input = ok(rater.post(
                            sheet + "/inputs",
                            Map.of("arguments", List.of("Etc/GMT+3", "2026-05-0" + (i + 1)), "input", "")))
                    .path("id")
                    .asString();
            timed(
                    "an input of a rater's own: the first of five answers",
                    () -> ok(rater.put(sheet + "/inputs/" + input + "/answers/" + answers.get(0), Map.of())));
            timed(
                    "the other four",
                    () -> answers.stream()
                            .skip(1)
                            .map(a -> ok(rater.put(sheet + "/inputs/" + input + "/answers/" + a, Map.of())))
                            .toList());
        }
    }

    public static void main(String[] arguments) throws Exception {
        Path root = Path.of(arguments[0]).toAbsolutePath().normalize();
        TestDatabase database = TestDatabase.create();
        Path repositories = Files.createTempDirectory("mossbank-bench").toRealPath();
        RepositoryTrials.make(root, repositories);
        try (ServerProcess server = ServerProcess.startDemo(
                root, database, Map.of("MOSSBANK_JIT", "4", "MOSSBANK_GIT_ROOTS", repositories.toString()))) {
            ApiClient lead = ApiClient.signedIn(server.address(), "orla", PASSWORD);
            String study = "/api/studies/" + DemoInPreparation.bringInUntried(root, lead);
            oneJavaAnswer(lead, study);
            RepositoryTrials.time(root, lead);
            String next = "/api/studies/" + DemoInPreparation.bringInNext(root, lead);
            String page = ofTitle(lead.get(next + "/prompts").json(), "Ask before a berth is given up");
            timePages(lead, next, page);
            int trials = timed("all trials of the demo, each twice", () -> {
                begin(lead, study, 2);
                return awaitAll(lead, study);
            });
            System.out.println(trials + " trials");
            ownInput(server);
            GradingLoad load = new GradingLoad(WARM_UP, SPAN);
            load.open(ManyRaters.bringIn(server, RATERS));
            begin(lead, next, 10);
            begin(lead, study, 10);
            load.run();
            load.report(RATERS);
            System.out.println(open(lead, next) + " trials of pages and repositories still to come when grading ended");
            long open = open(lead, study);
            System.out.println(open + " trials still to come when grading ended");
            if (!load.isComplete(database) || open == 0) {
                throw new IllegalStateException("a grade was refused, lost or doubled, or trials did not last");
            }
        }
    }
}
