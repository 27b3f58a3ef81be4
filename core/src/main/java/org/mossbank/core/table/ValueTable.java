package org.mossbank.core.table;

import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.apache.commons.csv.CSVException;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.mossbank.core.estimate.Require;

/**
 * Values that raters gave to units, read from CSV (RFC 4180) in one of two forms: <i>long</i>, a row for each value with the
 * columns unit, rater and value in any order; or <i>wide</i>, a row for each unit whose first column names it, and a column for
 * each rater. An empty cell is a value that was not given.
 *
 * @param values  in the order of the table
 * @param faults  what is wrong with it, by line; the values are of use only where there is none
 */
public record ValueTable(List<Value> values, List<TableFault> faults) {
    /** Rows of values, beside the head. */
    public static final int MOST_ROWS = 200_000;
    /** A wide table has many in a row. */
    public static final int MOST_VALUES = 1_000_000;
    /** More raters than any pairwise table could show. */
    public static final int MOST_RATERS = 60;

    private static final int MOST_FAULTS = 100;
    private static final int LONGEST_CELL = 500;
    private static final Set<String> LONG = Set.of("unit", "rater", "value");

    /** What one rater gave one unit, as it is written. */
    public record Value(String unit, String rater, String value) {}

    /**
     * @param line     of the file, from 1; 0 where it is about all of it
     * @param expected what there should be
     * @param found    what there is; empty where nothing is
     */
    public record TableFault(int line, String expected, String found) {}

    public ValueTable {
        values = List.copyOf(values);
        faults = List.copyOf(faults);
    }

    /** Reads a table; a byte order mark before it does not matter. */
    public static ValueTable parse(String text) {
        Reading reading = new Reading();
        try (CSVParser rows =
                CSVParser.parse(new StringReader(text.startsWith("\uFEFF") ? text.substring(1) : text), FORMAT)) {
            reading.read(rows);
        } catch (CSVException | UncheckedIOException e) {
            reading.fault(0, "a table of comma-separated values, with quotes closed", "");
        } catch (IOException e) {
            throw new UncheckedIOException("a text in memory can be read", e);
        }
        return new ValueTable(reading.values, reading.faults);
    }

    private static final CSVFormat FORMAT =
            CSVFormat.RFC4180.builder().setIgnoreEmptyLines(true).get();

    private static final class Reading {
        private final List<Value> values = new ArrayList<>();
        private final List<TableFault> faults = new ArrayList<>();
        private final Map<String, Set<String>> given = new HashMap<>();
        private final Set<String> raters = new HashSet<>();
        /** Few values are different, and millions may be alike. */
        private final Map<String, String> once = new HashMap<>();

        void read(CSVParser rows) {
            List<String> head = null;
            int read = 0;
            for (CSVRecord row : rows) {
                if (head == null) {
                    head = head(row);
                    if (!faults.isEmpty()) {
                        return;
                    }
                    continue;
                }
                read++;
                if (read > MOST_ROWS) {
                    fault((int) rows.getCurrentLineNumber(), "at most %,d rows".formatted(MOST_ROWS), "");
                    return;
                }
                if (values.size() > MOST_VALUES) {
                    fault(0, "at most %,d values".formatted(MOST_VALUES), "");
                    return;
                }
                if (faults.size() >= MOST_FAULTS) {
                    return;
                }
                row(head, row, (int) rows.getCurrentLineNumber());
            }
            if (head == null || read == 0) {
                fault(0, "a head and at least one row", "");
            } else if (raters.size() < 2 && faults.isEmpty()) {
                fault(0, "values from two raters or more", String.join(", ", raters));
            }
        }

        private List<String> head(CSVRecord row) {
            List<String> names = row.stream().map(String::strip).toList();
            if (names.size() < 3) {
                fault(
                        1,
                        "the columns unit, rater and value; or a unit and a column for each rater",
                        String.join(", ", names));
            } else if (new HashSet<>(names).size() < names.size()) {
                fault(1, "each column once", String.join(", ", names));
            } else if (!isLong(names) && names.size() - 1 > MOST_RATERS) {
                fault(1, "at most " + MOST_RATERS + " raters", String.valueOf(names.size() - 1));
            } else if (names.subList(1, names.size()).contains("")) {
                fault(1, "a name for each rater", "");
            }
            return names;
        }

        private static boolean isLong(List<String> head) {
            return head.size() == 3
                    && LONG.equals(Set.copyOf(
                            head.stream().map(n -> n.toLowerCase(Locale.ROOT)).toList()));
        }

        private void row(List<String> head, CSVRecord row, int line) {
            if (row.size() != head.size()) {
                fault(line, head.size() + " cells", String.valueOf(row.size()));
                return;
            }
            if (isLong(head)) {
                Map<String, String> cells = new HashMap<>();
                for (int i = 0; i < head.size(); i++) {
                    cells.put(head.get(i).toLowerCase(Locale.ROOT), row.get(i).strip());
                }
                add(Require.known(cells, "unit"), Require.known(cells, "rater"), Require.known(cells, "value"), line);
            } else {
                for (int i = 1; i < head.size(); i++) {
                    add(row.get(0).strip(), head.get(i), row.get(i).strip(), line);
                }
            }
        }

        private void add(String unit, String rater, String value, int line) {
            if (unit.isEmpty() || rater.isEmpty()) {
                fault(line, unit.isEmpty() ? "the name of a unit" : "the name of a rater", "");
            } else if (unit.length() > LONGEST_CELL || rater.length() > LONGEST_CELL || value.length() > LONGEST_CELL) {
                fault(line, "cells of at most " + LONGEST_CELL + " characters", "");
            } else if (value.isEmpty()) {
                // Not given.
                return;
            } else if (!given.computeIfAbsent(unit, u -> new HashSet<>()).add(rater)) {
                fault(line, "one value for a unit and rater", unit + ", " + rater);
            } else if (raters.add(rater) && raters.size() > MOST_RATERS) {
                fault(line, "at most " + MOST_RATERS + " raters", rater);
            } else {
                values.add(new Value(unit, once(rater), once(value)));
            }
        }

        private String once(String text) {
            return once.computeIfAbsent(text, t -> t);
        }

        void fault(int line, String expected, String found) {
            if (faults.size() < MOST_FAULTS) {
                faults.add(new TableFault(line, expected, found));
            }
        }
    }
}
