package org.mossbank.bench;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import org.mossbank.testkit.ApiClient;
import org.mossbank.testkit.ServerProcess;
import org.mossbank.testkit.TestDatabase;

/** How long the planner's address takes to answer for 16 prompts × 5 candidates × 5 raters: first figures, all chances, and other uses of the hours. */
public final class PlannerLatency {
    private static final int WARM = 5;
    private static final int MEASURED = 30;
    private static final double NANOS_A_MILLI = 1e6;

    private PlannerLatency() {}

    /** @param arguments the project's folder */
    public static void main(String[] arguments) {
        Path root = Path.of(arguments[0]).toAbsolutePath().normalize();
        try (ServerProcess server = ServerProcess.startDemo(root, TestDatabase.create())) {
            ApiClient lead = ApiClient.signedIn(server.address(), "orla", "tide and lantern");
            String study = lead.post("/api/studies", Map.of("title", "Planned"))
                    .json()
                    .path("id")
                    .asString();
            measure("first figures", lead, "/api/studies/" + study + "/forecast", "FIRST");
            measure("all chances", lead, "/api/studies/" + study + "/forecast", "FULL");
            measure("uses of the hours", lead, "/api/studies/" + study + "/forecast/uses", "FULL");
        }
    }

    private static void measure(String what, ApiClient lead, String path, String effort) {
        List<Double> millis = new ArrayList<>();
        for (int i = 0; i < WARM + MEASURED; i++) {
            // Another margin each time, so that nothing could be remembered.
            Map<String, Object> rule = Map.of(
                    "coefficient",
                    "ALPHA_ORDINAL",
                    "agreementFloor",
                    0.6,
                    "floorOn",
                    "UPPER_LIMIT",
                    "margin",
                    4 + i / 10.0,
                    "minimumRaters",
                    2,
                    "tieBreak",
                    "NONE",
                    "strictOnMasking",
                    false,
                    "strictOnSplits",
                    false,
                    "byKind",
                    false,
                    "failedAnswers",
                    "LOWEST");
            Map<String, Object> size = Map.of(
                    "promptsByKind", List.of(4, 4, 4, 4),
                    "candidates", 5,
                    "attempts", 1,
                    "raters", 5,
                    "ratersAnAnswer", 5,
                    "minutes", 6,
                    "gradedBy", "MIDDLING",
                    "effort", effort,
                    "rule", rule);
            long start = System.nanoTime();
            ApiClient.Response response = lead.post(path, size);
            if (response.status() != 200) {
                throw new IllegalStateException(response.body());
            }
            if (i >= WARM) {
                millis.add((System.nanoTime() - start) / NANOS_A_MILLI);
            }
        }
        Collections.sort(millis);
        System.out.printf(
                "%s, 16 prompts x 5 candidates x 5 raters: median %.0f ms, slowest %.0f ms%n",
                what, millis.get(millis.size() / 2), millis.get(millis.size() - 1));
    }
}
