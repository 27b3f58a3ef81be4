package org.mossbank.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.TreeMap;
import java.util.UUID;
import java.util.function.Supplier;
import org.mossbank.testkit.ApiClient;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Every operation of the description, with bodies made from it and then spoiled in one field or another: whatever comes, the
 * server says what is wrong, and never that something went wrong in it.
 */
public class FuzzTest extends ServerTest {
    private static final long SEED = 20261127;
    /** Bodies and addresses in all; five times as many in the long check. */
    private static final int REQUESTS = Boolean.getBoolean("mossbank.long") ? 10_000 : 1_500;

    private static final int DEEPEST = 5;
    private static final int FIRST_OF_SERVER = 500;

    /** Values that code trips over; each stands in place of one field. */
    private static final List<Supplier<Object>> ODD = List.of(
            () -> "",
            () -> " ",
            () -> "a\u0000b",
            () -> "\uD800",
            () -> "\uFEFF\u202E\u200B",
            () -> "x".repeat(5_000),
            () -> "/a".repeat(10_000),
            () -> "(".repeat(3_000),
            () -> "`".repeat(3_000),
            () -> ">".repeat(6_000),
            () -> "[[secret NO]]",
            () -> "{{prompt}}{{",
            () -> "${x}#{x}",
            () -> "../../../etc/passwd",
            () -> "http://[::1]:99999/",
            () -> "'; drop table account; --",
            () -> new RawNumber("9".repeat(900)),
            () -> new RawNumber("1e400"),
            () -> new RawNumber("-0"),
            () -> new RawNumber("1e-400"),
            () -> Long.MAX_VALUE,
            () -> Long.MIN_VALUE,
            () -> Integer.MAX_VALUE + 1L,
            () -> -1,
            () -> 0,
            () -> 0.1,
            () -> true,
            List::of,
            Map::of,
            () -> new ArrayList<>(java.util.Collections.nCopies(3_000, 1)),
            () -> new ArrayList<>(java.util.Collections.nCopies(500, Map.of())),
            () -> java.util.Collections.singletonList(null),
            () -> Map.of("a", Map.of("a", List.of(List.of()))),
            () -> null);

    private static final List<String> ODD_IN_ADDRESSES = List.of(
            "x",
            "%00",
            "..",
            "%2e%2e",
            "%ff",
            "00000000-0000-0000-0000-000000000000",
            "1e9",
            "-1",
            "99999999999999999999",
            "a%20b",
            "%E2%80%AE");

    /** A number as it is written, which no Java type holds. */
    private record RawNumber(String digits) {}

    private final JsonMapper json = JsonMapper.shared();
    private final SplittableRandom random = new SplittableRandom(SEED);

    private record Operation(String method, String path, JsonNode description) {}

    @Test
    public void noBodyMakesTheServerFail() {
        JsonNode api = as(LEAD).get("/api/openapi").json();
        List<Operation> operations = new ArrayList<>();
        for (Map.Entry<String, JsonNode> path : api.path("paths").properties()) {
            for (Map.Entry<String, JsonNode> method : path.getValue().properties()) {
                operations.add(new Operation(
                        method.getKey().toUpperCase(java.util.Locale.ROOT), path.getKey(), method.getValue()));
            }
        }
        // Live pages would keep the test waiting, and whoever signs out must sign in again.
        operations.removeIf(
                o -> o.path.endsWith("/events") || o.method.equals("DELETE") && o.path.endsWith("/session"));
        // Other tests know people by their names.
        operations.removeIf(o -> o.method.equals("PUT") && o.path.equals("/api/account"));
        String study = bringIn();
        Map<String, String> ids = ids(study);
        List<String> failed = new ArrayList<>();
        Map<Integer, Integer> statuses = new TreeMap<>();
        ApiClient lead = as(LEAD);
        ApiClient rater = as(RATER);
        for (int i = 0; i < REQUESTS; i++) {
            Operation operation = operations.get(i % operations.size());
            ApiClient who = i / operations.size() % 3 == 2 ? rater : lead;
            String address = address(operation, ids, i / operations.size() > 1);
            JsonNode schema = operation.description.at("/requestBody/content/application~1json/schema");
            String body = schema.isMissingNode() ? "" : body(api, schema);
            ApiClient.Response response = send(who, operation, address, body);
            statuses.merge(response.status(), 1, Integer::sum);
            if (response.status() >= FIRST_OF_SERVER) {
                failed.add(operation.method + " " + address + " " + body.substring(0, Math.min(300, body.length()))
                        + " -> " + response.body());
            }
        }
        assertThat(failed).as("of " + statuses).isEmpty();
        assertThat(statuses.getOrDefault(200, 0))
                .as("some reach what they are meant for")
                .isGreaterThan(REQUESTS / 20);
        assertThat(nobody().get("/api/session").status()).isEqualTo(200);
    }

    private ApiClient.Response send(ApiClient who, Operation operation, String address, String body) {
        if (operation.description.at("/requestBody/content").has("multipart/form-data")) {
            byte[] file = new byte[random.nextInt(400)];
            random.nextBytes(file);
            return who.upload(
                    address,
                    List.of("a.zip", "a.csv", "a.jsonl", "a\u0001.md", "").get(random.nextInt(5)),
                    file);
        }
        return who.raw(operation.method, address, body);
    }

    private String address(Operation operation, Map<String, String> ids, boolean mayBeOdd) {
        String address = operation.path;
        for (JsonNode parameter : operation.description.path("parameters")) {
            String name = parameter.path("name").asString();
            // Half of what only a lead does is done to a study that is being prepared, where it may do something.
            boolean toPreparing =
                    name.equals("studyId") && operation.path.startsWith("/api/studies/") && random.nextBoolean();
            String value = toPreparing
                    ? ids.get("preparing")
                    : ids.getOrDefault(
                            name,
                            parameter.at("/schema/format").asString("").equals("uuid")
                                    ? UUID.randomUUID().toString()
                                    : "0");
            if (mayBeOdd && random.nextInt(8) == 0) {
                value = ODD_IN_ADDRESSES.get(random.nextInt(ODD_IN_ADDRESSES.size()));
            }
            if (parameter.path("in").asString().equals("path")) {
                address = address.replace("{" + name + "}", value);
            } else {
                address += (address.contains("?") ? "&" : "?") + name + "=" + value;
            }
        }
        return address;
    }

    /** Ids that lead somewhere, so that bodies get past the door. */
    private Map<String, String> ids(String study) {
        Map<String, String> ids = new LinkedHashMap<>();
        ids.put("studyId", study);
        String preparing = as(LEAD).post("/api/studies", Map.of("title", "To be tried"))
                .json()
                .path("id")
                .asString();
        JsonNode prompts = as(LEAD).get("/api/studies/" + study + "/prompts").json();
        ids.put("promptId", prompts.at("/0/id").asString());
        ids.put(
                "candidateId",
                as(LEAD).get("/api/studies/" + study + "/candidates")
                        .json()
                        .at("/0/id")
                        .asString());
        ids.put(
                "answerId",
                as(LEAD).get("/api/studies/" + study + "/answers")
                        .json()
                        .at("/0/id")
                        .asString());
        ids.put(
                "kindId",
                as(LEAD).get("/api/studies/" + study + "/kinds")
                        .json()
                        .at("/0/id")
                        .asString());
        ids.put(
                "raterId",
                as(LEAD).get("/api/studies/" + study + "/people")
                        .json()
                        .at("/1/accountId")
                        .asString());
        JsonNode sheet = sheets(as(RATER), study).get(0);
        ids.put("sheetId", sheet.path("id").asString());
        JsonNode onSheet = as(RATER).get("/api/sheets/" + ids.get("sheetId")).json();
        ids.put("first", onSheet.at("/answers/0/id").asString());
        ids.put("second", onSheet.at("/answers/1/id").asString());
        ids.put("criterionId", onSheet.at("/criteria/0/id").asString());
        ids.put("preparing", preparing);
        return ids;
    }

    private String body(JsonNode api, JsonNode schema) {
        Object good = value(api, schema, 0);
        int spoiled = random.nextInt(4);
        Object body = good;
        for (int i = 0; i < spoiled; i++) {
            body = spoil(body);
        }
        String text = json.writeValueAsString(withoutRaw(body));
        return text.replaceAll("\"\u2063(.*?)\u2063\"", "$1");
    }

    private static Object withoutRaw(Object value) {
        if (value instanceof RawNumber raw) {
            return "\u2063" + raw.digits + "\u2063";
        }
        if (value instanceof Map<?, ?> map) {
            Map<String, Object> copy = new LinkedHashMap<>();
            map.forEach((k, v) -> copy.put(String.valueOf(k), v == null ? null : withoutRaw(v)));
            return copy;
        }
        if (value instanceof List<?> list) {
            List<Object> copy = new ArrayList<>();
            list.forEach(v -> copy.add(v == null ? null : withoutRaw(v)));
            return copy;
        }
        return value;
    }

    /** Puts something odd somewhere: at a random place, down to a random depth. */
    private Object spoil(Object value) {
        if (value instanceof Map<?, ?> map && !map.isEmpty() && random.nextInt(6) > 0) {
            Map<String, Object> copy = new LinkedHashMap<>();
            map.forEach((k, v) -> copy.put(String.valueOf(k), v));
            List<String> keys = List.copyOf(copy.keySet());
            String key = keys.get(random.nextInt(keys.size()));
            if (random.nextInt(10) == 0) {
                copy.remove(key);
            } else {
                copy.put(key, spoil(copy.get(key)));
            }
            return copy;
        }
        if (value instanceof List<?> list && !list.isEmpty() && random.nextInt(4) > 0) {
            List<Object> copy = new ArrayList<>(list);
            int at = random.nextInt(copy.size());
            copy.set(at, spoil(copy.get(at)));
            return copy;
        }
        return ODD.get(random.nextInt(ODD.size())).get();
    }

    /** Something that fits a schema. */
    private Object value(JsonNode api, JsonNode schema, int depth) {
        if (schema.has("$ref")) {
            return value(api, api.at(schema.path("$ref").asString().substring(1)), depth);
        }
        if (schema.has("enum")) {
            return schema.path("enum")
                    .get(random.nextInt(schema.path("enum").size()))
                    .asString();
        }
        for (String mix : List.of("oneOf", "anyOf", "allOf")) {
            if (schema.has(mix)) {
                return value(api, schema.path(mix).get(0), depth);
            }
        }
        String type = schema.path("type").isArray()
                ? schema.at("/type/0").asString()
                : schema.path("type").asString("object");
        return switch (type) {
            case "string" -> string(schema);
            case "integer" -> random.nextInt(5);
            case "number" -> random.nextInt(3) / 2.0;
            case "boolean" -> random.nextBoolean();
            case "array" -> depth > DEEPEST ? List.of() : array(api, schema, depth);
            default -> object(api, schema, depth);
        };
    }

    private Object string(JsonNode schema) {
        return switch (schema.path("format").asString("")) {
            case "uuid" -> UUID.randomUUID().toString();
            case "date-time" -> "2026-03-01T10:00:00Z";
            case "date" -> "2026-03-01";
            default -> List.of("a", "Some words", "correctness", "java", "EUR").get(random.nextInt(5));
        };
    }

    private Object array(JsonNode api, JsonNode schema, int depth) {
        List<Object> items = new ArrayList<>();
        for (int i = random.nextInt(3); i > 0; i--) {
            items.add(value(api, schema.path("items"), depth + 1));
        }
        return items;
    }

    private Object object(JsonNode api, JsonNode schema, int depth) {
        Map<String, Object> object = new LinkedHashMap<>();
        List<String> required =
                schema.path("required").valueStream().map(JsonNode::asString).toList();
        for (Map.Entry<String, JsonNode> property : schema.path("properties").properties()) {
            boolean take = required.contains(property.getKey()) || depth < DEEPEST && random.nextInt(2) == 0;
            if (take) {
                object.put(property.getKey(), value(api, property.getValue(), depth + 1));
            }
        }
        return object;
    }
}
