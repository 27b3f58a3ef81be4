package org.mossbank.testkit;

import java.util.Map;
import java.util.TreeMap;
import java.util.UUID;
import tools.jackson.databind.JsonNode;

/** What a rater does with a sheet, over the wire. */
public final class SheetWork {
    private SheetWork() {}

    /** Grades every cell of a sheet at the level, gives a reason for each answer, and sends it in. */
    public static void gradeAndSend(ApiClient rater, String sheet, int level) {
        JsonNode view = rater.get("/api/sheets/" + sheet).json();
        for (JsonNode answer : view.path("answers")) {
            for (JsonNode criterion : view.path("criteria")) {
                String id = criterion.path("id").asString();
                ApiClient.Response response =
                        rater.put(gradePath(sheet, answer, id), grade(revision(answer, id), level));
                if (response.status() != 200) {
                    throw new AssertionError(response.body());
                }
            }
        }
        view.path("answers").forEach(answer -> explain(rater, sheet, answer));
        ApiClient.Response sent = rater.post("/api/sheets/" + sheet + "/send", Map.of());
        if (sent.status() != 200) {
            throw new AssertionError(sent.body());
        }
    }

    /** Gives a reason, as grades at the ends of a scale need one. */
    public static void explain(ApiClient rater, String sheet, JsonNode answer) {
        if (answer.path("reason").asString().isEmpty()) {
            rater.put(
                    "/api/sheets/" + sheet + "/answers/" + answer.path("id").asString() + "/reason",
                    change(answer.path("reasonRevision").asLong(), Map.of("text", "As I see it.")));
        }
    }

    public static String gradePath(String sheet, JsonNode answer, String criterion) {
        return "/api/sheets/" + sheet + "/answers/" + answer.path("id").asString() + "/grades/" + criterion;
    }

    /** A cell in which nothing was ever written is at the first one. */
    private static long revision(JsonNode answer, String criterion) {
        return answer.path("grades")
                .valueStream()
                .filter(g -> g.path("criterionId").asString().equals(criterion))
                .mapToLong(g -> g.path("revision").asLong())
                .findFirst()
                .orElse(0);
    }

    public static Map<String, Object> grade(long baseRevision, int level) {
        return change(baseRevision, Map.of("level", level, "notApplicable", false));
    }

    /** A change with an id of its own, upon a revision. */
    public static Map<String, Object> change(long baseRevision, Map<String, ?> value) {
        Map<String, Object> change = new TreeMap<>(value);
        change.put("changeId", UUID.randomUUID().toString());
        change.put("baseRevision", baseRevision);
        return change;
    }
}
