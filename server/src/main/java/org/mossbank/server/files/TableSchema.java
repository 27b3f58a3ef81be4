package org.mossbank.server.files;

import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import tools.jackson.databind.JsonNode;

/**
 * Reads a CSV against a Table Schema (Data Package standard, version 2.0) and says what is wrong with it, by line and
 * column. Knows the types and constraints that the archive's schemas use: string, integer, number, boolean, date, datetime;
 * required, enum, pattern, minimum, maximum, maxLength; primary, unique and foreign keys.
 */
public final class TableSchema {
    /** A row that is longer than any sensible one is a missing quote. */
    private static final int MOST_FAULTS_A_TABLE = 200;

    private static final Pattern WHOLE = Pattern.compile("-?\\d{1,18}");
    private static final Pattern DECIMAL = Pattern.compile("-?\\d{1,15}(\\.\\d{1,15})?");

    private final JsonNode json;
    private final Map<String, Column> columns = new LinkedHashMap<>();

    /** A row of any table is kept in memory; so many fit. */
    private static final int LAST_YEAR = 9999;

    private static final int MOST_ROWS = 400_000;

    /** Rules are taken from the schema once, and not for every cell. */
    private record Column(
            String name,
            String type,
            boolean required,
            JsonNode constraints,
            @Nullable Set<String> allowed,
            @Nullable Pattern form) {
        static Column of(JsonNode field) {
            JsonNode rules = field.path("constraints");
            return new Column(
                    field.path("name").asString(),
                    field.path("type").asString(),
                    rules.path("required").asBoolean(false),
                    rules,
                    rules.has("enum")
                            ? rules.path("enum").values().stream()
                                    .map(JsonNode::asString)
                                    .collect(Collectors.toCollection(LinkedHashSet::new))
                            : null,
                    rules.has("pattern") ? Pattern.compile(rules.path("pattern").asString()) : null);
        }
    }

    /** A foreign key: a column here whose values occur in a column of another table. */
    public record ForeignKey(String column, String table, String otherColumn) {}

    public TableSchema(JsonNode json) {
        this.json = json;
        for (JsonNode field : json.path("fields")) {
            Column column = Column.of(field);
            columns.put(column.name(), column);
        }
    }

    public JsonNode json() {
        return json;
    }

    public List<String> columnNames() {
        return List.copyOf(columns.keySet());
    }

    public List<ForeignKey> foreignKeys() {
        List<ForeignKey> keys = new ArrayList<>();
        for (JsonNode key : json.path("foreignKeys")) {
            keys.add(new ForeignKey(
                    key.at("/fields/0").asString(),
                    key.at("/reference/resource").asString(),
                    key.at("/reference/fields/0").asString()));
        }
        return keys;
    }

    /** The rows that could be read; what is wrong goes to the faults. */
    public List<TableRow> read(String file, String text, Faults all) {
        List<Fault> faults = new ArrayList<>();
        List<TableRow> rows = new ArrayList<>();
        CSVFormat format = CSVFormat.RFC4180.builder().setIgnoreEmptyLines(true).get();
        try (CSVParser parser = CSVParser.parse(new StringReader(text), format)) {
            List<String> header = List.of();
            long before = 0;
            for (CSVRecord csv : parser) {
                int line = (int) before + 1;
                before = parser.getCurrentLineNumber();
                if (csv.getRecordNumber() == 1) {
                    header = csv.toList();
                    if (!headerIsRight(file, header, faults)) {
                        all.notReadToTheEnd(file);
                        break;
                    }
                } else {
                    row(file, line, header, csv, faults, rows, all);
                }
                if (rows.size() > MOST_ROWS) {
                    faults.add(new Fault(file, line, null, "at most %,d rows".formatted(MOST_ROWS), null));
                }
                if (faults.size() >= MOST_FAULTS_A_TABLE || rows.size() > MOST_ROWS) {
                    all.notReadToTheEnd(file);
                    break;
                }
            }
            if (parser.getRecordNumber() == 0) {
                faults.add(new Fault(file, 1, null, "a header line with the columns " + columnNames(), null));
            }
        } catch (IOException | UncheckedIOException | IllegalStateException e) {
            faults.add(Fault.ofFile(file, "comma-separated values with balanced double quotes"));
            all.notReadToTheEnd(file);
        }
        checkKeys(rows, faults);
        faults.stream().limit(MOST_FAULTS_A_TABLE).forEach(all::add);
        if (faults.size() >= MOST_FAULTS_A_TABLE) {
            all.add(Fault.ofFile(
                    file, "fewer faults; reading stopped at " + MOST_FAULTS_A_TABLE + ", and there may be more"));
        }
        return rows;
    }

    private boolean headerIsRight(String file, List<String> header, List<Fault> faults) {
        int before = faults.size();
        for (String name : header) {
            if (!columns.containsKey(name)) {
                faults.add(new Fault(file, 1, name, "one of the columns " + columnNames(), name));
            }
        }
        if (new HashSet<>(header).size() < header.size()) {
            faults.add(new Fault(file, 1, null, "each column once", String.join(",", header)));
        }
        for (Column column : columns.values()) {
            if (column.required() && !header.contains(column.name())) {
                faults.add(new Fault(file, 1, column.name(), "this column", null));
            }
        }
        return faults.size() == before;
    }

    private void row(
            String file,
            int line,
            List<String> header,
            CSVRecord csv,
            List<Fault> faults,
            List<TableRow> rows,
            Faults all) {
        if (csv.size() != header.size()) {
            faults.add(new Fault(file, line, null, header.size() + " cells", csv.size() + " cells"));
            // Which cell is which cannot be told.
            all.notReadToTheEnd(file);
            return;
        }
        Map<String, String> cells = new HashMap<>();
        for (int i = 0; i < header.size(); i++) {
            // What is false is as good as not said, also in a key.
            boolean isFalse = csv.get(i).equals("false")
                    && Require.known(columns, header.get(i)).type().equals("boolean");
            if (!csv.get(i).isEmpty() && !isFalse) {
                cells.put(header.get(i), csv.get(i));
            }
        }
        int before = faults.size();
        for (Column column : columns.values()) {
            String expected = expectation(column, cells.get(column.name()));
            if (expected != null) {
                faults.add(new Fault(file, line, column.name(), expected, cells.get(column.name())));
            }
        }
        if (faults.size() == before) {
            rows.add(new TableRow(file, line, cells));
        } else {
            all.refuse(file, cells);
        }
    }

    /** What a cell should hold, if it does not. */
    private static @Nullable String expectation(Column column, @Nullable String cell) {
        if (cell == null) {
            return column.required() ? "a value" : null;
        }
        JsonNode rules = column.constraints();
        return switch (column.type()) {
            case "integer" -> number(cell, WHOLE, "a whole number", rules);
            case "number" -> number(cell, DECIMAL, "a number with a decimal point", rules);
            case "boolean" -> cell.equals("true") || cell.equals("false") ? null : "true or false";
            case "date" -> isDate(cell) ? null : "a date such as 2026-03-01, of the years 1 to 9999";
            case "datetime" ->
                isDateTime(cell)
                        ? null
                        : "a date and time with zone, such as 2026-03-01T14:30:00Z, of the years 1 to 9999";
            default -> text(cell, column);
        };
    }

    private static @Nullable String number(String cell, Pattern form, String what, JsonNode rules) {
        String range = (rules.has("minimum") ? " from " + rules.path("minimum").asString() : "")
                + (rules.has("maximum") ? " to " + rules.path("maximum").asString() : "");
        if (!form.matcher(cell).matches()) {
            return what + range;
        }
        BigDecimal value = new BigDecimal(cell);
        boolean low =
                rules.has("minimum") && value.compareTo(rules.path("minimum").decimalValue()) < 0;
        boolean high =
                rules.has("maximum") && value.compareTo(rules.path("maximum").decimalValue()) > 0;
        return low || high ? what + range : null;
    }

    /** Years that every reader of the format knows, and the database keeps. */
    private static boolean isKept(int year) {
        return year >= 1 && year <= LAST_YEAR;
    }

    private static boolean isDate(String cell) {
        try {
            return isKept(LocalDate.parse(cell).getYear());
        } catch (DateTimeParseException e) {
            return false;
        }
    }

    private static boolean isDateTime(String cell) {
        try {
            return isKept(OffsetDateTime.parse(cell)
                    .withOffsetSameInstant(ZoneOffset.UTC)
                    .getYear());
        } catch (DateTimeParseException e) {
            return false;
        }
    }

    private static @Nullable String text(String cell, Column column) {
        JsonNode rules = column.constraints();
        Set<String> allowed = column.allowed();
        if (allowed != null) {
            return allowed.contains(cell) ? null : "one of " + String.join(", ", allowed);
        }
        Pattern form = column.form();
        if (form != null && !form.matcher(cell).matches()) {
            return "text of the form " + form.pattern();
        }
        if (rules.has("maxLength") && cell.length() > rules.path("maxLength").asInt()) {
            return "at most " + rules.path("maxLength").asInt() + " characters";
        }
        return cell.isBlank() ? "text" : null;
    }

    private void checkKeys(List<TableRow> rows, List<Fault> faults) {
        List<List<String>> keys = new ArrayList<>();
        keys.add(names(json.path("primaryKey")));
        json.path("uniqueKeys").forEach(k -> keys.add(names(k)));
        for (List<String> key : keys) {
            Map<List<String>, Integer> seen = new HashMap<>();
            for (TableRow row : rows) {
                Integer first = key.isEmpty() ? null : seen.putIfAbsent(row.texts(key), row.line());
                if (first != null && faults.size() < MOST_FAULTS_A_TABLE) {
                    faults.add(new Fault(
                            row.file(),
                            row.line(),
                            String.join(", ", key),
                            "other values than those of line " + first,
                            String.join(", ", row.texts(key))));
                }
            }
        }
    }

    private static List<String> names(JsonNode array) {
        return array.values().stream().map(JsonNode::asString).toList();
    }

    /** Checks that values of foreign keys occur where they point. */
    public void checkReferences(
            List<TableRow> rows, Map<String, List<TableRow>> tables, Map<String, String> files, Faults faults) {
        for (ForeignKey key : foreignKeys()) {
            String file = files.getOrDefault(key.table(), key.table());
            if (!faults.isReadToTheEnd(file)) {
                continue;
            }
            Set<String> known = Stream.concat(
                            tables.getOrDefault(key.table(), List.of()).stream().map(r -> r.text(key.otherColumn())),
                            faults.refused(file, key.otherColumn()))
                    .collect(Collectors.toSet());
            int found = 0;
            for (TableRow row : rows) {
                if (found == MOST_FAULTS_A_TABLE) {
                    return;
                }
                // An empty cell points at nothing, where it may be empty.
                if (row.textOrNull(key.column()) != null && !known.contains(row.text(key.column()))) {
                    faults.add(row, key.column(), "a " + key.otherColumn() + " of " + file, row.text(key.column()));
                    found++;
                }
            }
        }
    }
}
