package org.mossbank.server.files;

import com.networknt.schema.Error;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.StreamReadConstraints;
import tools.jackson.core.json.JsonFactory;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Reads a JSON file against a JSON Schema and says what is wrong with it, by line and pointer. */
public final class JsonFile {
    private static final int DEEPEST = 40;
    private static final int LONGEST_NUMBER = 40;
    private static final int LONGEST_TEXT = 5 << 20;
    private static final int MOST_TOKENS = 200_000;

    /** More in one file nobody reads. */
    private static final int MOST_FAULTS = 200;

    private static final JsonMapper MAPPER = JsonMapper.builder(JsonFactory.builder()
                    .streamReadConstraints(StreamReadConstraints.builder()
                            .maxNestingDepth(DEEPEST)
                            .maxNumberLength(LONGEST_NUMBER)
                            .maxStringLength(LONGEST_TEXT)
                            .maxTokenCount(MOST_TOKENS)
                            .build())
                    .build())
            .enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
            .enable(DeserializationFeature.FAIL_ON_READING_DUP_TREE_KEY)
            .build();

    /** Beyond it, whole numbers are not exact in every reader of JSON. */
    private static final double MOST = 1L << 53;

    private static final SchemaRegistry REGISTRY =
            SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12);

    private JsonFile() {}

    /**
     * A JSON Schema of the format, the same file that its documentation shows.
     *
     * @throws IllegalStateException if there is none of this name
     */
    public static Schema schema(String name) {
        try (InputStream in = JsonFile.class.getResourceAsStream("/archive/schemas/" + name + ".schema.json")) {
            if (in == null) {
                throw new IllegalStateException("the server's jar lacks the schema " + name);
            }
            return REGISTRY.getSchema(MAPPER.readTree(in));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The document, if it is valid; what is wrong goes to the faults. */
    public static Optional<JsonNode> read(String file, String text, Schema schema, Faults faults) {
        JsonNode json;
        try {
            json = MAPPER.readTree(text);
        } catch (JacksonException e) {
            Integer line = e.getLocation() == null ? null : e.getLocation().getLineNr();
            faults.add(new Fault(file, line, null, "JSON", e.getOriginalMessage()));
            return Optional.empty();
        }
        // The validator itself stumbles over numbers that no 64 bits hold.
        List<String> huge = new ArrayList<>();
        gatherHuge(json, "", huge);
        if (!huge.isEmpty()) {
            Map<String, Integer> lines = lines(text, new HashSet<>(huge));
            huge.forEach(pointer -> faults.add(new Fault(
                    file,
                    lines.get(pointer),
                    pointer,
                    "a number of at most 2 to the power of 53",
                    json.at(pointer).asString())));
            return Optional.empty();
        }
        var errors = schema.validate(json, context -> context.executionConfig(c -> c.formatAssertionsEnabled(true)));
        if (errors.isEmpty()) {
            return Optional.of(json);
        }
        List<Error> shown = errors.stream().limit(MOST_FAULTS).toList();
        Set<String> places = new HashSet<>();
        shown.forEach(error -> {
            places.add(error.getInstanceLocation().toString());
            places.add(pointerOf(error));
        });
        Map<String, Integer> lines = lines(text, places);
        shown.forEach(error -> faults.add(fault(file, json, error, lines)));
        if (errors.size() > MOST_FAULTS) {
            faults.add(Fault.ofFile(file, "fewer faults; there are " + (errors.size() - MOST_FAULTS) + " more"));
        }
        return Optional.empty();
    }

    private static void gatherHuge(JsonNode node, String pointer, List<String> huge) {
        if (huge.size() >= MOST_FAULTS) {
            return;
        }
        if (node.isNumber() && !(Math.abs(node.doubleValue()) <= MOST)) {
            huge.add(pointer);
        }
        if (node.isArray()) {
            for (int i = 0; i < node.size(); i++) {
                gatherHuge(node.get(i), pointer + "/" + i, huge);
            }
        } else {
            node.properties().forEach(p -> gatherHuge(p.getValue(), pointer + "/" + escaped(p.getKey()), huge));
        }
    }

    private static String escaped(String name) {
        return name.replace("~", "~0").replace("/", "~1");
    }

    private static String pointerOf(Error error) {
        boolean ofProperty =
                error.getKeyword().equals("required") || error.getKeyword().equals("additionalProperties");
        return error.getInstanceLocation() + (ofProperty ? "/" + error.getProperty() : "");
    }

    private static Fault fault(String file, JsonNode json, Error error, Map<String, Integer> lines) {
        String parent = error.getInstanceLocation().toString();
        boolean missing = error.getKeyword().equals("required");
        boolean unknown = error.getKeyword().equals("additionalProperties");
        String pointer = pointerOf(error);
        JsonNode found = json.at(pointer);
        return new Fault(
                file,
                lines.getOrDefault(pointer, lines.get(parent)),
                pointer.isEmpty() ? null : pointer,
                missing ? "this property" : unknown ? "no property of this name" : error.getMessage(),
                found.isValueNode() ? found.asString() : null);
    }

    /** The lines on which the values at some JSON pointers start; worked out only for what is wrong. */
    private static Map<String, Integer> lines(String text, Set<String> pointers) {
        Map<String, Integer> lines = new HashMap<>();
        Deque<String> path = new ArrayDeque<>();
        Deque<Integer> indexes = new ArrayDeque<>();
        try (JsonParser parser = MAPPER.createParser(text)) {
            for (JsonToken token = parser.nextToken(); token != null; token = parser.nextToken()) {
                if (token == JsonToken.PROPERTY_NAME) {
                    continue;
                }
                if (token.isStructEnd()) {
                    path.pollLast();
                    indexes.pollLast();
                    continue;
                }
                String step = step(parser, indexes);
                String pointer = String.join("", path) + step;
                if (pointers.contains(pointer)) {
                    lines.putIfAbsent(pointer, parser.currentTokenLocation().getLineNr());
                }
                if (token.isStructStart()) {
                    path.addLast(step);
                    indexes.addLast(0);
                }
            }
        }
        return lines;
    }

    private static String step(JsonParser parser, Deque<Integer> indexes) {
        if (indexes.isEmpty()) {
            return "";
        }
        var context = parser.streamReadContext();
        boolean opens = parser.currentToken().isStructStart();
        var holder = opens ? context.getParent() : context;
        if (holder.inArray()) {
            int index = indexes.pollLast();
            indexes.addLast(index + 1);
            return "/" + index;
        }
        return "/" + escaped(holder.currentName());
    }
}
