package org.mossbank.server.archive;

import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.mossbank.server.files.Fault;
import org.mossbank.server.files.JsonFile;
import org.mossbank.server.files.TableRow;
import tools.jackson.databind.JsonNode;

/** Reads the rubric that counts from its tables, and its other versions from their file. */
final class RubricTables {
    private final ArchiveTables tables;
    private final Set<String> kinds;

    RubricTables(ArchiveTables tables) {
        this.tables = tables;
        this.kinds = tables.rows("kinds").stream().map(r -> r.text("kind")).collect(Collectors.toSet());
    }

    List<StudyArchive.ArchiveCriterion> criteria() {
        Map<String, Integer> highest = tables.rows("criteria").stream()
                .collect(Collectors.toMap(r -> r.text("criterion"), r -> r.integer("highest_level")));
        for (String table : List.of("levels", "anchors", "grades")) {
            for (TableRow row : tables.rows(table)) {
                Integer level = row.integerOrNull("level");
                int most = highest.get(row.text("criterion"));
                if (level != null && level > most) {
                    tables.faults().add(row, "level", "a level from 0 to " + most, String.valueOf(level));
                }
            }
        }
        return tables.rows("criteria").stream().map(this::criterion).toList();
    }

    private StudyArchive.ArchiveCriterion criterion(TableRow row) {
        String key = row.text("criterion");
        List<TableRow> names = tables.rows("levels", "criterion", key);
        List<TableRow> anchors = tables.rows("anchors", "criterion", key);
        List<StudyArchive.ArchiveLevel> levels = new ArrayList<>();
        for (int level = 0; level <= row.integer("highest_level"); level++) {
            String at = String.valueOf(level);
            SortedMap<String, String> texts = new TreeMap<>();
            anchors.stream()
                    .filter(a -> a.text("level").equals(at))
                    .forEach(a -> texts.put(a.text("kind"), a.text("text")));
            String name = names.stream()
                    .filter(n -> n.text("level").equals(at))
                    .map(n -> n.text("name"))
                    .findFirst()
                    .orElse("");
            levels.add(new StudyArchive.ArchiveLevel(name, texts));
        }
        List<String> forKinds = ArchiveTables.list(row.text("kinds"));
        if (!kinds.containsAll(forKinds)) {
            tables.faults().add(row, "kinds", "keys of kinds in " + tables.path("kinds"), row.text("kinds"));
        }
        return new StudyArchive.ArchiveCriterion(
                key,
                row.text("name"),
                row.text("question"),
                row.number("weight"),
                row.textOrNull("floor") == null ? null : row.number("floor"),
                levels,
                forKinds,
                tables.rows("traits", "criterion", key).stream()
                        .map(r -> r.text("text"))
                        .toList());
    }

    /** @param current number of the version that the tables hold */
    List<StudyArchive.ArchiveRubric> history(int current) {
        Optional<JsonNode> json = tables.textOf(Schemas.RUBRIC_HISTORY)
                .flatMap(text -> JsonFile.read(
                        tables.path(Schemas.RUBRIC_HISTORY), text, Schemas.RUBRIC_HISTORY_FILE, tables.faults()));
        List<StudyArchive.ArchiveRubric> history = new ArrayList<>();
        List<Integer> numbers = new ArrayList<>(List.of(current));
        int index = 0;
        for (JsonNode version :
                json.map(j -> j.path("versions")).orElse(tools.jackson.databind.node.MissingNode.getInstance())) {
            String pointer = "/versions/" + index++;
            int number = version.path("version").asInt();
            if (numbers.contains(number)) {
                fault(pointer + "/version", "another number than those before", String.valueOf(number));
            }
            numbers.add(number);
            history.add(new StudyArchive.ArchiveRubric(
                    new StudyArchive.RubricHead(
                            number,
                            OffsetDateTime.parse(version.path("publishedAt").asString())
                                    .toInstant(),
                            version.path("note").asString("")),
                    criteria(version.path("criteria"), pointer)));
        }
        return history;
    }

    private void fault(String pointer, String expected, String found) {
        tables.faults().add(new Fault(tables.path(Schemas.RUBRIC_HISTORY), null, pointer, expected, found));
    }

    private List<StudyArchive.ArchiveCriterion> criteria(JsonNode array, String pointer) {
        List<StudyArchive.ArchiveCriterion> criteria = new ArrayList<>();
        for (JsonNode c : array) {
            List<StudyArchive.ArchiveLevel> levels = new ArrayList<>();
            for (JsonNode level : c.path("levels")) {
                SortedMap<String, String> anchors = new TreeMap<>();
                level.path("anchors").properties().forEach(a -> {
                    requireKind(a.getKey(), pointer);
                    anchors.put(a.getKey(), a.getValue().asString());
                });
                levels.add(new StudyArchive.ArchiveLevel(level.path("name").asString(), anchors));
            }
            List<String> forKinds = strings(c.path("kinds"));
            forKinds.forEach(k -> requireKind(k, pointer));
            criteria.add(new StudyArchive.ArchiveCriterion(
                    c.path("key").asString(),
                    c.path("name").asString(),
                    c.path("question").asString(),
                    c.path("weight").asDouble(),
                    c.has("floor") ? c.path("floor").asDouble() : null,
                    levels,
                    forKinds,
                    strings(c.path("traits"))));
        }
        return criteria;
    }

    private void requireKind(String kind, String pointer) {
        if (!kinds.contains(kind)) {
            fault(pointer, "keys of kinds in " + tables.path("kinds"), kind);
        }
    }

    private static List<String> strings(JsonNode array) {
        return array.values().stream().map(JsonNode::asString).toList();
    }
}
