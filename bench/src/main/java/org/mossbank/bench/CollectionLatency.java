package org.mossbank.bench;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.ServerProcess;
import org.mossbank.testkit.TestDatabase;

/**
 * How long it takes to bring 5,000 answers in from a file, to fetch the grid that shows them, and to search them for what gives
 * candidates away.
 */
public final class CollectionLatency {
    private static final int PROMPTS = 50;
    private static final int CANDIDATES = 5;
    private static final int ATTEMPTS = 20;
    private static final int CHARACTERS = 1000;
    private static final int WARM = 3;
    private static final int MEASURED = 15;
    private static final double NANOS_A_MILLI = 1e6;

    private CollectionLatency() {}

    /** @param arguments the project's folder */
    public static void main(String[] arguments) {
        Path root = Path.of(arguments[0]).toAbsolutePath().normalize();
        try (ServerProcess server = ServerProcess.startDemo(root, TestDatabase.create())) {
            ApiClient lead = ApiClient.signedIn(server.address(), "orla", "tide and lantern");
            String study = study(lead);
            byte[] file = file();
            System.out.printf("%,d answers, %,d kB%n", PROMPTS * CANDIDATES * ATTEMPTS, file.length / 1024);
            once("look at the file", () -> lead.upload(study + "/answer-files/preview", "a.jsonl", file));
            once("take it", () -> lead.upload(study + "/answer-files", "a.jsonl", file));
            once("search for give-aways, the first time", () -> lead.get(study + "/masking"));
            median("grid of answers", () -> lead.get(study + "/answers"));
            median("search for give-aways", () -> lead.get(study + "/masking"));
        }
    }

    private static String study(ApiClient lead) {
        String study = "/api/studies/"
                + lead.post("/api/studies", Map.of("title", "Many answers"))
                        .json()
                        .path("id")
                        .asString();
        String kind = lead.get(study + "/kinds").json().get(0).path("id").asString();
        for (int p = 0; p < PROMPTS; p++) {
            Map<String, Object> content = new HashMap<>();
            content.put("title", "Prompt " + p);
            content.put("language", "Java 17");
            content.put("request", "Why is berth " + p + " never free?");
            content.put("referenceAnswer", "");
            for (String list : List.of("areas", "constraints", "keyPoints", "followUps")) {
                content.put(list, List.of());
            }
            content.put("startingFiles", List.of(Map.of("path", "src/Berth.java", "text", code(p))));
            check(lead.post(study + "/prompts", Map.of("kindId", kind, "content", content)));
        }
        for (int c = 0; c < CANDIDATES; c++) {
            Map<String, Object> content = new HashMap<>();
            content.put("name", "Sedgeholm " + c);
            content.put("version", "1." + c);
            content.put("price", Map.of("caps", ""));
            content.put("note", "");
            content.put("baseline", false);
            content.put("settings", List.of());
            content.put("considerations", List.of());
            check(lead.post(study + "/candidates", Map.of("content", content)));
        }
        return study;
    }

    private static String code(int prompt) {
        return "class Berth {\n    int number = " + prompt + ";\n    int length;\n    boolean free;\n}\n";
    }

    private static byte[] file() {
        StringBuilder lines = new StringBuilder();
        for (int p = 0; p < PROMPTS; p++) {
            for (int c = 0; c < CANDIDATES; c++) {
                for (int a = 1; a <= ATTEMPTS; a++) {
                    String code = code(p).replace("int length", "final int length" + a);
                    String text = "Attempt " + a + ".\n\n```java\n" + code + "```\n";
                    String filled = text
                            + "The last berth is left out of the loop. "
                                    .repeat(Math.max(0, (CHARACTERS - text.length()) / 40));
                    lines.append("{\"prompt\":\"Prompt ")
                            .append(p)
                            .append("\",\"candidate\":\"Sedgeholm ")
                            .append(c);
                    lines.append("\",\"attempt\":")
                            .append(a)
                            .append(",\"total_ms\":")
                            .append(1000 + a);
                    lines.append(",\"text\":\"")
                            .append(filled.replace("\n", "\\n"))
                            .append("\"}\n");
                }
            }
        }
        return lines.toString().getBytes(StandardCharsets.UTF_8);
    }

    private static void check(ApiClient.Response response) {
        if (response.status() >= 300) {
            throw new IllegalStateException(response.body());
        }
    }

    private static double millis(Supplier<ApiClient.Response> call) {
        long start = System.nanoTime();
        check(call.get());
        return (System.nanoTime() - start) / NANOS_A_MILLI;
    }

    private static void once(String what, Supplier<ApiClient.Response> call) {
        System.out.printf("%s: %.0f ms%n", what, millis(call));
    }

    private static void median(String what, Supplier<ApiClient.Response> call) {
        List<Double> all = new ArrayList<>();
        for (int i = 0; i < WARM + MEASURED; i++) {
            double took = millis(call);
            if (i >= WARM) {
                all.add(took);
            }
        }
        Collections.sort(all);
        System.out.printf(
                "%s: median %.0f ms, slowest %.0f ms%n", what, all.get(all.size() / 2), all.get(all.size() - 1));
    }
}
