package org.mossbank.server.rubric;

import com.networknt.schema.Schema;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import org.mossbank.server.files.Fault;
import org.mossbank.server.files.JsonFile;
import org.mossbank.server.files.Tables;
import org.mossbank.server.files.Words;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.MissingNode;
import tools.jackson.databind.node.ObjectNode;

/** The versions of the rubric that no table holds, as a file of the open format. */
public final class RubricHistory {
    /** Its name in the package. */
    public static final String NAME = "rubric-history";

    private static final Schema SCHEMA = JsonFile.schema(NAME);

    private final Tables tables;
    private final Set<String> kinds;

    private RubricHistory(Tables tables, Set<String> kinds) {
        this.tables = tables;
        this.kinds = kinds;
    }

    /**
     * @param current number of the version that the tables hold
     * @param kinds   keys of the study's kinds
     */
    public static List<KeyedVersion> read(Tables tables, int current, Set<String> kinds) {
        Optional<JsonNode> json =
                tables.textOf(NAME).flatMap(text -> JsonFile.read(tables.path(NAME), text, SCHEMA, tables.faults()));
        RubricHistory history = new RubricHistory(tables, kinds);
        Set<Integer> numbers = new HashSet<>(Set.of(current));
        List<KeyedVersion> versions = new ArrayList<>();
        for (JsonNode version : json.map(j -> j.path("versions")).orElse(MissingNode.getInstance())) {
            versions.add(history.version(version, "/versions/" + versions.size(), numbers));
        }
        return versions;
    }

    private KeyedVersion version(JsonNode version, String pointer, Set<Integer> numbers) {
        int number = version.path("version").asInt();
        if (!numbers.add(number)) {
            fault(pointer + "/version", "another number than those before", String.valueOf(number));
        }
        return new KeyedVersion(
                new KeyedVersion.Head(
                        number,
                        OffsetDateTime.parse(version.path("publishedAt").asString())
                                .toInstant(),
                        version.path("note").asString("")),
                version.path("criteria")
                        .valueStream()
                        .map(c -> criterion(c, pointer))
                        .toList());
    }

    private void fault(String pointer, String expected, String found) {
        tables.faults().add(new Fault(tables.path(NAME), null, pointer, expected, found));
    }

    private KeyedCriterion criterion(JsonNode json, String pointer) {
        List<String> forKinds = strings(json.path("kinds"));
        forKinds.forEach(k -> requireKind(k, pointer));
        return new KeyedCriterion(
                json.path("key").asString(),
                json.path("name").asString(),
                json.path("question").asString(),
                json.path("weight").asDouble(),
                json.has("floor") ? json.path("floor").asDouble() : null,
                json.path("levels").valueStream().map(l -> level(l, pointer)).toList(),
                forKinds,
                strings(json.path("traits")));
    }

    private KeyedCriterion.KeyedLevel level(JsonNode json, String pointer) {
        SortedMap<String, String> anchors = new TreeMap<>();
        json.path("anchors").properties().forEach(a -> {
            requireKind(a.getKey(), pointer);
            anchors.put(a.getKey(), a.getValue().asString());
        });
        return new KeyedCriterion.KeyedLevel(json.path("name").asString(), anchors);
    }

    private void requireKind(String kind, String pointer) {
        if (!kinds.contains(kind)) {
            fault(pointer, "keys of kinds in " + tables.path("kinds"), kind);
        }
    }

    private static List<String> strings(JsonNode array) {
        return array.values().stream().map(JsonNode::asString).toList();
    }

    public static ObjectNode json(List<KeyedVersion> history) {
        ObjectNode json = JsonMapper.shared().createObjectNode();
        ArrayNode versions = json.putArray("versions");
        for (KeyedVersion version : history) {
            ObjectNode one = versions.addObject();
            one.put("version", version.head().version());
            one.put("publishedAt", String.valueOf(version.head().publishedAt()));
            one.put("note", version.head().note());
            ArrayNode criteria = one.putArray("criteria");
            version.criteria().forEach(c -> write(c, criteria.addObject()));
        }
        return json;
    }

    private static void write(KeyedCriterion criterion, ObjectNode json) {
        json.put("key", criterion.key());
        json.put("name", criterion.name());
        json.put("question", criterion.question());
        json.put("weight", Words.plain(criterion.weight()));
        if (criterion.floor() != null) {
            json.put("floor", Words.plain(criterion.floor()));
        }
        ArrayNode levels = json.putArray("levels");
        for (KeyedCriterion.KeyedLevel level : criterion.levels()) {
            ObjectNode one = levels.addObject().put("name", level.name());
            level.anchors().forEach(one.putObject("anchors")::put);
        }
        if (!criterion.kinds().isEmpty()) {
            criterion.kinds().forEach(json.putArray("kinds")::add);
        }
        criterion.traits().forEach(json.putArray("traits")::add);
    }
}
