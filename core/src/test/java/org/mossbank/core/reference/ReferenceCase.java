package org.mossbank.core.reference;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.SortedSet;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.mossbank.core.agreement.Rating;
import org.mossbank.core.agreement.RatingMatrix;
import org.mossbank.core.agreement.ScoreTable;
import org.mossbank.core.comparison.ScoredCell;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** A case of the reference collection: a data file and what it must give. */
record ReferenceCase(Path folder, JsonNode json) {
    private static final JsonMapper MAPPER = JsonMapper.shared();

    /** All cases below a folder, sorted by file; what neither has an id nor expects anything is none. */
    static List<ReferenceCase> below(Path root) {
        try (Stream<Path> files = Files.walk(root)) {
            return files.filter(f -> f.toString().endsWith(".json"))
                    .sorted()
                    .map(f -> new ReferenceCase(f.getParent(), read(f)))
                    .filter(c -> c.json.has("id") || c.json.has("expected"))
                    .toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static JsonNode read(Path file) {
        return MAPPER.readTree(file.toFile());
    }

    String id() {
        return json.path("id").asString();
    }

    List<CSVRecord> rows(String member) {
        Path file = folder.resolve(json.path(member).asString());
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setHeader()
                .setSkipHeaderRecord(true)
                .setIgnoreEmptyLines(true)
                .get();
        try (CSVParser parser = CSVParser.parse(file, StandardCharsets.UTF_8, format)) {
            return parser.getRecords();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Units × raters; an empty last cell is a missing rating. */
    RatingMatrix ratings() {
        List<String> categories = categories();
        List<Rating> ratings = rows("data").stream()
                .filter(r -> !r.get("value").isEmpty())
                .map(r -> new Rating(r.get("unit"), r.get("rater"), position(categories, r.get("value"))))
                .toList();
        return RatingMatrix.of(ratings, scale(categories));
    }

    private static int position(List<String> categories, String value) {
        int position = categories.indexOf(value);
        if (position < 0) {
            throw new IllegalStateException("value outside the declared categories: " + value);
        }
        return position;
    }

    private static double[] scale(List<String> categories) {
        boolean numbers = categories.stream().allMatch(c -> c.matches("-?\\d+(\\.\\d+)?"));
        double[] scale = new double[categories.size()];
        for (int i = 0; i < scale.length; i++) {
            scale[i] = numbers ? Double.parseDouble(categories.get(i)) : i;
        }
        return scale;
    }

    List<ScoredCell> cells() {
        List<ScoredCell> cells = new ArrayList<>();
        for (CSVRecord row : rows("data")) {
            if (!row.get("score").isEmpty()) {
                cells.add(new ScoredCell(
                        row.get("model"), row.get("prompt"), row.get("rater"), Double.parseDouble(row.get("score"))));
            }
        }
        return cells;
    }

    List<String> statistics() {
        return json.path("statistic").values().stream().map(JsonNode::asString).toList();
    }

    List<String> keys() {
        return List.copyOf(json.path("expected").propertyNames());
    }

    /** Numbers of units × raters, which need not lie on a scale. */
    ScoreTable scores() {
        return ScoreTable.of(rows("data").stream()
                .filter(r -> !r.get("value").isEmpty())
                .map(r -> new ScoreTable.Score(r.get("unit"), r.get("rater"), Double.parseDouble(r.get("value"))))
                .toList());
    }

    List<String> categories() {
        return json.path("categories").values().stream().map(JsonNode::asString).toList();
    }

    /** Prompts × models, in alphabetical order; those that lack a model's score are left out. */
    SortedMap<String, Map<String, String>> blocks() {
        SortedSet<String> models = new TreeSet<>();
        SortedMap<String, Map<String, String>> blocks = new TreeMap<>();
        for (CSVRecord row : rows("data")) {
            models.add(row.get("model"));
            if (!row.get("score").isEmpty()) {
                blocks.computeIfAbsent(row.get("prompt"), p -> new TreeMap<>()).put(row.get("model"), row.get("score"));
            }
        }
        blocks.values().removeIf(b -> b.size() < models.size());
        return blocks;
    }

    JsonNode expected(String key) {
        return json.path("expected").path(key);
    }
}
