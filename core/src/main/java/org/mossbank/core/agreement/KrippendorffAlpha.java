package org.mossbank.core.agreement;

import java.nio.IntBuffer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import java.util.random.RandomGenerator;
import java.util.random.RandomGenerator.SplittableGenerator;
import java.util.stream.IntStream;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Jackknife;
import org.mossbank.core.estimate.Multinomial;
import org.mossbank.core.estimate.Resamples;

/**
 * Krippendorff's alpha: how far raters agree beyond what the overall use of the levels makes likely, with any number of
 * raters and any gaps.
 *
 * <p>\[ \alpha = 1 - D_o / D_e \], observed over expected disagreement among pairable grades, from the coincidence
 * matrix. 1 is perfect agreement, 0 is chance level, negative is worse than chance. The ordinal distance of two levels
 * counts the grades that lie between them, from the pairable grades' own frequencies:
 * \[ \delta_{ck} = \left( \sum_{g=c}^{k} n_g - (n_c + n_k) / 2 \right)^2 \]. Dimensionless, at most 1.
 *
 * <p>Input: units × raters over the declared levels. Units with fewer than two grades do not count. Undefined when no
 * unit has two grades, or when all pairable grades are at one level.
 *
 * <p>Source: K. Krippendorff (2011), <i>Computing Krippendorff's Alpha-Reliability</i>,
 * https://repository.upenn.edu/asc_papers/43.
 */
public final class KrippendorffAlpha {
    private final double[] scale;
    /** Clusters whose grades meet in the same way are alike for all that follows: the distinct ones, and which each is. */
    private final List<Coincidences> patterns;

    private final int[] patternOf;

    private KrippendorffAlpha(double[] scale, List<Coincidences> clusters) {
        this.scale = scale;
        Map<Coincidences, Integer> numbers = new LinkedHashMap<>();
        patternOf = new int[clusters.size()];
        for (int i = 0; i < patternOf.length; i++) {
            Integer number = numbers.putIfAbsent(clusters.get(i), numbers.size());
            patternOf[i] = number == null ? numbers.size() - 1 : number;
        }
        patterns = List.copyOf(numbers.keySet());
    }

    private KrippendorffAlpha(double[] scale, List<Coincidences> patterns, int[] patternOf) {
        this.scale = scale;
        this.patterns = patterns;
        this.patternOf = patternOf;
    }

    /** Alpha whose intervals resample single units. */
    public static KrippendorffAlpha of(RatingMatrix matrix) {
        // Most units were given the same levels as some other: each such set is worked out once.
        Map<IntBuffer, Integer> numbers = new HashMap<>();
        List<Coincidences> patterns = new ArrayList<>();
        int[] patternOf = new int[matrix.units().size()];
        for (int u = 0; u < patternOf.length; u++) {
            IntBuffer counts = IntBuffer.wrap(matrix.counts(u));
            Integer number = numbers.get(counts);
            if (number == null) {
                number = patterns.size();
                numbers.put(counts, number);
                Coincidences unit = new Coincidences(matrix.levels());
                unit.addUnit(counts.array());
                patterns.add(unit);
            }
            patternOf[u] = number;
        }
        return new KrippendorffAlpha(matrix.scale(), patterns, patternOf);
    }

    /**
     * Alpha whose intervals resample clusters of units, because units of one cluster belong together (all answers to one
     * prompt).
     *
     * @param clusterOfUnit the cluster for each unit of the matrix
     */
    public static KrippendorffAlpha of(RatingMatrix matrix, UnaryOperator<String> clusterOfUnit) {
        Map<String, Coincidences> clusters = new LinkedHashMap<>();
        for (int u = 0; u < matrix.units().size(); u++) {
            clusters.computeIfAbsent(
                            clusterOfUnit.apply(matrix.units().get(u)), name -> new Coincidences(matrix.levels()))
                    .addUnit(matrix.counts(u));
        }
        return new KrippendorffAlpha(matrix.scale(), new ArrayList<>(clusters.values()));
    }

    /**
     * Alpha from how often each level was given.
     *
     * @param counts by cluster, unit and level; levels are 0, 1, … and as many in every unit
     */
    public static KrippendorffAlpha ofCounts(int levels, List<List<int[]>> counts) {
        double[] scale = new double[levels];
        Arrays.setAll(scale, i -> i);
        return new KrippendorffAlpha(
                scale,
                counts.stream()
                        .map(units -> {
                            Coincidences cluster = new Coincidences(levels);
                            units.forEach(cluster::addUnit);
                            return cluster;
                        })
                        .toList());
    }

    /** Number of clusters that a resample draws. */
    public int clusterCount() {
        return patternOf.length;
    }

    /** The point estimate. */
    public Estimate value(Metric metric) {
        return all().alpha(metric, scale);
    }

    /**
     * Alpha of one resample, the ordinal metric recomputed in it.
     *
     * @param drawn positions of the drawn clusters, in the order in which their first unit occurs
     */
    public Estimate valueOf(Metric metric, int... drawn) {
        Coincidences sum = new Coincidences(scale.length);
        for (int cluster : drawn) {
            sum.add(patterns.get(patternOf[cluster]));
        }
        return sum.alpha(metric, scale);
    }

    /**
     * The bootstrap distribution: as many clusters as there are, drawn with replacement. Resamples without a defined
     * alpha are left out and counted. Cost O(resamples × (clusters + distinct clusters × levels²)).
     */
    public Resamples bootstrap(Metric metric, int resamples, SplittableGenerator random) {
        int[] times = times();
        return Resamples.draw(resamples, random, child -> replicate(metric, times, child));
    }

    /** For these raters over other clusters; see {@link Jackknife}. Cost O(clusters + distinct clusters × levels²). */
    public Interval interval(Metric metric, double level) {
        return Jackknife.ofAgreement(value(metric), leaveOneOut(metric), level);
    }

    /** Alpha without each cluster in turn; undefined ones are NaN. Cost O(clusters + distinct clusters × levels²). */
    public double[] leaveOneOut(Metric metric) {
        Coincidences all = all();
        double[] withoutPattern = new double[patterns.size()];
        for (int i = 0; i < withoutPattern.length; i++) {
            Coincidences rest = new Coincidences(scale.length);
            rest.add(all);
            rest.add(patterns.get(i), -1);
            withoutPattern[i] = rest.alpha(metric, scale).value().orElse(Double.NaN);
        }
        return IntStream.of(patternOf).mapToDouble(i -> withoutPattern[i]).toArray();
    }

    /** How many clusters are of each pattern. */
    private int[] times() {
        int[] times = new int[patterns.size()];
        for (int pattern : patternOf) {
            times[pattern]++;
        }
        return times;
    }

    private Coincidences all() {
        Coincidences all = new Coincidences(scale.length);
        int[] times = times();
        for (int i = 0; i < times.length; i++) {
            all.add(patterns.get(i), times[i]);
        }
        return all;
    }

    private double replicate(Metric metric, int[] times, RandomGenerator random) {
        int[] drawn = Multinomial.draw(times, random);
        Coincidences sum = new Coincidences(scale.length);
        for (int i = 0; i < drawn.length; i++) {
            sum.add(patterns.get(i), drawn[i]);
        }
        return sum.alpha(metric, scale).value().orElse(Double.NaN);
    }
}
