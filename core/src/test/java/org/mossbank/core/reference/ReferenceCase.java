package org.mossbank.core.reference;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.mossbank.core.agreement.Rating;
import org.mossbank.core.agreement.RatingMatrix;
import org.mossbank.core.comparison.ScoredCell;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** A case of the reference collection: a data file and what it must give. */
record ReferenceCase(Path folder, JsonNode json) {
    private static final JsonMapper MAPPER = JsonMapper.shared();

    /** All cases below a folder for one statistic, sorted by file. */
    static List<ReferenceCase> of(String statistic) {
        Path root = Path.of(System.getProperty("mossbank.reference", "src/test/resources/reference"));
        try (Stream<Path> files = Files.walk(root)) {
            return files.filter(f -> f.toString().endsWith(".json"))
                    .sorted()
                    .map(f -> new ReferenceCase(f.getParent(), read(f)))
                    .filter(c -> c.json.path("statistic").values().stream()
                            .anyMatch(s -> s.asString().equals(statistic)))
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
        List<String> categories = json.path("categories").values().stream()
                .map(JsonNode::asString)
                .toList();
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

    List<String> keys(String prefix) {
        return json.path("expected").propertyNames().stream()
                .filter(k -> k.startsWith(prefix))
                .toList();
    }

    JsonNode expected(String key) {
        return json.path("expected").path(key);
    }
}
