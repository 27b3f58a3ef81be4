package org.mossbank.core.agreement;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.SortedSet;
import java.util.TreeMap;
import java.util.TreeSet;
import org.mossbank.core.estimate.Require;

/** Numbers that raters gave to units, for those units that every rater gave one: complete rows, one column a rater. */
public final class ScoreTable {
    private final List<String> raters;
    private final double[][] rows;

    private ScoreTable(List<String> raters, double[][] rows) {
        this.raters = raters;
        this.rows = rows;
    }

    /** @param value any finite number */
    public record Score(String unit, String rater, double value) {
        /** @throws IllegalArgumentException if the value is NaN or infinite */
        public Score {
            Require.finite("value", value);
        }
    }

    /**
     * @param scores any order; at most one for a unit and rater
     * @throws IllegalArgumentException if a rater scored a unit twice
     */
    public static ScoreTable of(Collection<Score> scores) {
        SortedSet<String> raters = new TreeSet<>();
        Map<String, Map<String, Double>> units = new TreeMap<>();
        for (Score score : scores) {
            raters.add(score.rater());
            Double before =
                    units.computeIfAbsent(score.unit(), u -> new HashMap<>()).put(score.rater(), score.value());
            Require.that(before == null, "score", "must be single for unit and rater", score);
        }
        List<double[]> rows = new ArrayList<>();
        for (Map<String, Double> unit : units.values()) {
            if (unit.size() == raters.size()) {
                rows.add(
                        raters.stream().mapToDouble(r -> Require.known(unit, r)).toArray());
            }
        }
        return new ScoreTable(List.copyOf(raters), rows.toArray(double[][]::new));
    }

    /** Complete units. */
    public int units() {
        return rows.length;
    }

    /** All raters that occur, whether they scored a complete unit or not. */
    public List<String> raters() {
        return raters;
    }

    double value(int unit, int rater) {
        return rows[unit][rater];
    }

    /** What a rater gave to the complete units, in their order. */
    double[] column(int rater) {
        return Arrays.stream(rows).mapToDouble(row -> row[rater]).toArray();
    }
}
