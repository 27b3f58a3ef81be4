package org.mossbank.core.agreement;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import org.mossbank.core.estimate.Require;

/**
 * Grades on one criterion as units × raters, with gaps, over a declared scale.
 *
 * <p>Units keep the order in which they first occur; raters are in alphabetical order. Units without any grade are not
 * in it.
 */
public final class RatingMatrix {
    private static final byte MISSING = -1;

    private final List<String> units;
    private final List<String> raters;
    private final double[] scale;
    private final byte[][] cells;

    private RatingMatrix(List<String> units, List<String> raters, double[] scale, byte[][] cells) {
        this.units = units;
        this.raters = raters;
        this.scale = scale;
        this.cells = cells;
    }

    /**
     * @param ratings any order; at most one for a unit and rater
     * @param scale   the declared levels as numbers, ascending, used or not; 1 to 127 of them
     * @throws IllegalArgumentException if a rater graded a unit twice, or a category lies outside the scale
     */
    public static RatingMatrix of(Collection<Rating> ratings, double... scale) {
        Accumulator gathered = new Accumulator(scale);
        ratings.forEach(r -> gathered.add(r.unit(), r.rater(), r.category()));
        return gathered.snapshot();
    }

    /** A scale of levels 0, 1, … highest. */
    public static RatingMatrix ofLevels(Collection<Rating> ratings, int highest) {
        return of(ratings, levels(highest));
    }

    private static double[] levels(int highest) {
        double[] scale = new double[highest + 1];
        Arrays.setAll(scale, i -> i);
        return scale;
    }

    /** Gathers grades in any order; quickest where those of a unit come one after another. */
    public static final class Accumulator {
        private final double[] scale;
        private final Map<String, Integer> units = new HashMap<>();
        private final List<String> unitsInOrder = new ArrayList<>();
        /** Columns as raters come; rows are as long as there were raters when they were made or widened. */
        private final Map<String, Integer> columns = new HashMap<>();

        private final List<byte[]> rows = new ArrayList<>();
        private int last = -1;

        /** @param scale as {@link #of} has it */
        Accumulator(double... scale) {
            Require.that(
                    scale.length >= 1 && scale.length <= Byte.MAX_VALUE,
                    "scale",
                    "must have 1 to 127 levels",
                    scale.length);
            this.scale = scale.clone();
        }

        /** Over a scale of levels 0, 1, … highest. */
        public static Accumulator ofLevels(int highest) {
            return new Accumulator(levels(highest));
        }

        /** @throws IllegalArgumentException if the rater graded the unit before, or the category lies outside the scale */
        public void add(String unit, String rater, int category) {
            // Words are made where they are needed alone, as this is called for every grade.
            if (Require.atLeast("category", 0, category) >= scale.length) {
                throw new IllegalArgumentException("category must be below " + scale.length + ": " + category);
            }
            int row = rowOf(unit);
            Integer known = columns.putIfAbsent(rater, columns.size());
            int column = known == null ? columns.size() - 1 : known;
            byte[] cells = rows.get(row);
            if (column >= cells.length) {
                cells = filled(cells, columns.size());
                rows.set(row, cells);
            }
            if (cells[column] != MISSING) {
                throw new IllegalArgumentException(
                        "rating must be single for unit and rater: " + new Rating(unit, rater, category));
            }
            cells[column] = (byte) category;
        }

        private int rowOf(String unit) {
            if (last >= 0 && unitsInOrder.get(last).equals(unit)) {
                return last;
            }
            Integer known = units.putIfAbsent(unit, rows.size());
            if (known == null) {
                unitsInOrder.add(unit);
                rows.add(filled(new byte[0], columns.size()));
            }
            last = known == null ? rows.size() - 1 : known;
            return last;
        }

        private static byte[] filled(byte[] cells, int width) {
            byte[] wider = Arrays.copyOf(cells, width);
            Arrays.fill(wider, cells.length, width, MISSING);
            return wider;
        }

        public RatingMatrix snapshot() {
            List<String> raters = columns.keySet().stream().sorted().toList();
            int[] from =
                    raters.stream().mapToInt(r -> Require.known(columns, r)).toArray();
            byte[][] cells = new byte[rows.size()][from.length];
            for (int u = 0; u < cells.length; u++) {
                byte[] row = rows.get(u);
                for (int r = 0; r < from.length; r++) {
                    cells[u][r] = from[r] < row.length ? row[from[r]] : MISSING;
                }
            }
            return new RatingMatrix(List.copyOf(unitsInOrder), raters, scale, cells);
        }
    }

    public List<String> units() {
        return units;
    }

    public List<String> raters() {
        return raters;
    }

    /** Number of declared levels. */
    public int levels() {
        return scale.length;
    }

    double[] scale() {
        return scale.clone();
    }

    /** The category in a cell, or empty where the rater did not grade the unit. */
    public OptionalInt category(int unit, int rater) {
        int category = cells[unit][rater];
        return category == MISSING ? OptionalInt.empty() : OptionalInt.of(category);
    }

    boolean isGraded(int unit, int rater) {
        return cells[unit][rater] != MISSING;
    }

    /** How many levels two raters lie apart on a unit that both graded. */
    int distance(int unit, int rater, int other) {
        return Math.abs(cells[unit][rater] - cells[unit][other]);
    }

    /** The same grades on some units alone, by raters who graded one of them. */
    public RatingMatrix only(Predicate<String> wanted) {
        int[] rows = IntStream.range(0, units.size())
                .filter(u -> wanted.test(units.get(u)))
                .toArray();
        int[] columns = IntStream.range(0, raters.size())
                .filter(r -> Arrays.stream(rows).anyMatch(u -> isGraded(u, r)))
                .toArray();
        byte[][] rest = new byte[rows.length][columns.length];
        for (int u = 0; u < rows.length; u++) {
            for (int r = 0; r < columns.length; r++) {
                rest[u][r] = cells[rows[u]][columns[r]];
            }
        }
        return new RatingMatrix(
                Arrays.stream(rows).mapToObj(units::get).toList(),
                Arrays.stream(columns).mapToObj(raters::get).toList(),
                scale,
                rest);
    }

    /** How often each category was given to the unit; length {@link #levels()}. */
    int[] counts(int unit) {
        int[] counts = new int[scale.length];
        for (byte category : cells[unit]) {
            if (category != MISSING) {
                counts[category]++;
            }
        }
        return counts;
    }

    /** The same grades but for one rater's. */
    public RatingMatrix without(String rater) {
        List<Rating> rest = new ArrayList<>();
        for (int u = 0; u < units.size(); u++) {
            ratingsOf(u).stream().filter(r -> !r.rater().equals(rater)).forEach(rest::add);
        }
        return of(rest, scale);
    }

    /** The categories given to the unit, in the order of raters. */
    List<Rating> ratingsOf(int unit) {
        List<Rating> ratings = new ArrayList<>();
        for (int r = 0; r < raters.size(); r++) {
            if (cells[unit][r] != MISSING) {
                ratings.add(new Rating(units.get(unit), raters.get(r), cells[unit][r]));
            }
        }
        return ratings;
    }
}
