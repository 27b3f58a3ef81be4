package org.mossbank.core.agreement;

import java.util.ArrayList;
import java.util.Arrays;
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
    private final List<Coincidences> clusters;
    /** Clusters whose grades meet in the same way are alike for all that follows: the distinct ones, and which each is. */
    private final List<Coincidences> patterns;

    private final int[] patternOf;

    private KrippendorffAlpha(double[] scale, List<Coincidences> clusters) {
        this.scale = scale;
        this.clusters = clusters;
        Map<Coincidences, Integer> numbers = new LinkedHashMap<>();
        patternOf = new int[clusters.size()];
        for (int i = 0; i < patternOf.length; i++) {
            Integer number = numbers.putIfAbsent(clusters.get(i), numbers.size());
            patternOf[i] = number == null ? numbers.size() - 1 : number;
        }
        patterns = List.copyOf(numbers.keySet());
    }

    /** Alpha whose intervals resample single units. */
    public static KrippendorffAlpha of(RatingMatrix matrix) {
        return of(matrix, UnaryOperator.identity());
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
        return clusters.size();
    }

    /** The point estimate. */
    public Estimate value(Metric metric) {
        Coincidences all = new Coincidences(scale.length);
        clusters.forEach(all::add);
        return all.alpha(metric, scale);
    }

    /**
     * Alpha of one resample, the ordinal metric recomputed in it.
     *
     * @param drawn positions of the drawn clusters, in the order in which their first unit occurs
     */
    public Estimate valueOf(Metric metric, int... drawn) {
        Coincidences sum = new Coincidences(scale.length);
        for (int cluster : drawn) {
            sum.add(clusters.get(cluster));
        }
        return sum.alpha(metric, scale);
    }

    /**
     * The bootstrap distribution: as many clusters as there are, drawn with replacement. Resamples without a defined
     * alpha are left out and counted. Cost O(resamples × (clusters + distinct clusters × levels²)).
     */
    public Resamples bootstrap(Metric metric, int resamples, SplittableGenerator random) {
        return Resamples.draw(resamples, random, child -> replicate(metric, child));
    }

    /** For these raters over other clusters; see {@link Jackknife}. Cost O(clusters + distinct clusters × levels²). */
    public Interval interval(Metric metric, double level) {
        return Jackknife.ofAgreement(value(metric), leaveOneOut(metric), level);
    }

    /** Alpha without each cluster in turn; undefined ones are NaN. Cost O(clusters + distinct clusters × levels²). */
    public double[] leaveOneOut(Metric metric) {
        Coincidences all = new Coincidences(scale.length);
        clusters.forEach(all::add);
        double[] withoutPattern = new double[patterns.size()];
        for (int i = 0; i < withoutPattern.length; i++) {
            Coincidences rest = new Coincidences(scale.length);
            rest.add(all);
            rest.add(patterns.get(i), -1);
            withoutPattern[i] = rest.alpha(metric, scale).value().orElse(Double.NaN);
        }
        return IntStream.of(patternOf).mapToDouble(i -> withoutPattern[i]).toArray();
    }

    private double replicate(Metric metric, RandomGenerator random) {
        int[] drawn = new int[patterns.size()];
        int n = patternOf.length;
        for (int i = 0; i < n; i++) {
            drawn[patternOf[random.nextInt(n)]]++;
        }
        Coincidences sum = new Coincidences(scale.length);
        for (int i = 0; i < drawn.length; i++) {
            sum.add(patterns.get(i), drawn[i]);
        }
        return sum.alpha(metric, scale).value().orElse(Double.NaN);
    }
}
