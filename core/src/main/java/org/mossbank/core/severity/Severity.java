package org.mossbank.core.severity;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.random.RandomGenerator;
import java.util.random.RandomGenerator.SplittableGenerator;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.LinearSystem;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.estimate.Resamples;

/**
 * Severity of raters: who grades below the others on the same answers, and by how much.
 *
 * <p>\[ x_{ur} = \theta_u - s_r + \epsilon_{ur}, \quad \sum_r s_r = 0 \] by least squares: the severity s of a rater, in levels,
 * above 0 for one who is strict. The unit effects are eliminated first (the normal equations of a two-way layout with unequal numbers,
 * Searle 1971, <i>Linear Models</i>, ch. 7.1), so that cost grows with raters cubed and grades, not with units cubed. Only
 * units with two grades or more tell anything.
 *
 * <p>Undefined when the grades do not connect all raters.
 */
public final class Severity {
    private Severity() {}

    /** The reduced normal equations that one cluster contributes: rows of the matrix after each other, then the side. */
    private static final class Part {
        private final int raters;
        private final double[] values;

        Part(int raters) {
            this.raters = raters;
            this.values = new double[raters * raters + raters];
        }

        void addToMatrix(int row, int column, double value) {
            values[row * raters + column] += value;
        }

        void addToSide(int row, double value) {
            values[raters * raters + row] += value;
        }
    }

    /**
     * @param grades    any order, one for a unit and rater
     * @param resamples how many bootstrap resamples of clusters for the intervals
     * @param level     confidence level
     * @return one entry a rater, in alphabetical order
     */
    public static List<RaterSeverity> of(
            Collection<GradedUnit> grades, int resamples, double level, SplittableGenerator random) {
        // Hashed, as each grade is looked up in it, and in alphabetical order.
        Map<String, Integer> raters = new LinkedHashMap<>();
        grades.stream().map(GradedUnit::rater).distinct().sorted().forEach(r -> raters.put(r, raters.size()));
        if (raters.isEmpty()) {
            return List.of();
        }
        List<Part> parts = parts(grades, raters);
        Optional<double[]> point = solve(parts, each(parts.size()));
        List<double[]> replicates = point.isEmpty()
                ? List.of()
                : Resamples.drawAll(resamples, random, child -> replicate(parts, child)).stream()
                        .flatMap(Optional::stream)
                        .toList();
        int[] given = new int[raters.size()];
        int[] atEnds = new int[raters.size()];
        for (GradedUnit grade : grades) {
            int rater = Require.known(raters, grade.rater());
            given[rater]++;
            atEnds[rater] += grade.atAnEnd() ? 1 : 0;
        }
        List<RaterSeverity> result = new ArrayList<>();
        raters.forEach((rater, index) -> result.add(new RaterSeverity(
                rater,
                point.map(p -> Estimate.of(-p[index])).orElse(Estimate.undefined(Reason.NOT_CONNECTED)),
                interval(point.isPresent(), parts.size(), replicates, index, level),
                given[index],
                atEnds[index] / (double) given[index])));
        return result;
    }

    private static Interval interval(
            boolean defined, int clusters, List<double[]> replicates, int index, double level) {
        if (!defined) {
            return Interval.undefined(Reason.NOT_CONNECTED);
        }
        if (clusters < 2) {
            return Interval.undefined(Reason.TOO_FEW_TO_RESAMPLE);
        }
        return Resamples.of(replicates.stream().mapToDouble(r -> -r[index]).toArray())
                .percentileInterval(level);
    }

    private static List<Part> parts(Collection<GradedUnit> grades, Map<String, Integer> raters) {
        Map<String, Map<String, List<GradedUnit>>> byCluster = new LinkedHashMap<>();
        String last = "";
        Map<String, List<GradedUnit>> units = new LinkedHashMap<>();
        for (GradedUnit grade : grades) {
            if (!grade.cluster().equals(last) || byCluster.isEmpty()) {
                last = grade.cluster();
                units = byCluster.computeIfAbsent(last, c -> new LinkedHashMap<>());
            }
            units.computeIfAbsent(grade.unit(), u -> new ArrayList<>()).add(grade);
        }
        return byCluster.values().stream()
                .map(own -> part(own.values(), raters))
                .toList();
    }

    private static Part part(Collection<List<GradedUnit>> units, Map<String, Integer> raters) {
        int n = raters.size();
        Part part = new Part(n);
        for (List<GradedUnit> unit : units) {
            // Looked up once each, as every grade meets every other.
            int[] by = unit.stream()
                    .mapToInt(g -> Require.known(raters, g.rater()))
                    .toArray();
            double mean = unit.stream().mapToInt(GradedUnit::level).average().orElseThrow();
            for (int g = 0; g < by.length; g++) {
                part.addToSide(by[g], unit.get(g).level() - mean);
                part.addToMatrix(by[g], by[g], 1);
                for (int other : by) {
                    part.addToMatrix(by[g], other, -1.0 / by.length);
                }
            }
        }
        return part;
    }

    private static Optional<double[]> replicate(List<Part> parts, RandomGenerator random) {
        int[] drawn = new int[parts.size()];
        for (int i = 0; i < drawn.length; i++) {
            drawn[random.nextInt(drawn.length)]++;
        }
        return solve(parts, drawn);
    }

    /** Rater effects summing to zero, each cluster so often: the last is minus the sum of the others. */
    private static Optional<double[]> solve(List<Part> parts, int[] drawn) {
        int n = parts.get(0).raters;
        if (n == 1) {
            return Optional.empty();
        }
        double[] sum = new double[n * n + n];
        for (int p = 0; p < drawn.length; p++) {
            int times = drawn[p];
            double[] part = parts.get(p).values;
            if (times > 0) {
                for (int i = 0; i < sum.length; i++) {
                    sum[i] += times * part[i];
                }
            }
        }
        double[][] reduced = new double[n - 1][n - 1];
        double[] right = new double[n - 1];
        for (int i = 0; i < n - 1; i++) {
            right[i] = sum[n * n + i];
            for (int j = 0; j < n - 1; j++) {
                // Rows sum to zero, so one rater's effect may be set to 0 and all shifted afterwards.
                reduced[i][j] = sum[i * n + j];
            }
        }
        return LinearSystem.solveInPlace(reduced, right).map(Severity::centred);
    }

    private static double[] centred(double[] free) {
        double[] effects = new double[free.length + 1];
        double mean = 0;
        for (double effect : free) {
            mean += effect / effects.length;
        }
        for (int i = 0; i < effects.length; i++) {
            effects[i] = (i < free.length ? free[i] : 0) - mean;
        }
        return effects;
    }

    private static int[] each(int n) {
        int[] once = new int[n];
        Arrays.fill(once, 1);
        return once;
    }
}
