package org.mossbank.core.comparison;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;

/**
 * Grids whose scores are weighted sums of others at the same places, as scores under many weights are. What decides follows from
 * sums that are worked out once for each two candidates, however many weights are tried. Safe for several threads.
 */
public final class MixedGrids {
    /** In the unit of the scores, of points by the hundred: far more than rounding, far less than anything that counts. */
    private static final double APART = 1e-6;

    private final ScoreGrid base;
    private final List<ScoreGrid> parts;
    private final Map<Integer, MixedSums> known = new ConcurrentHashMap<>();

    private @Nullable List<double[]> adjusted;
    private @Nullable List<double[]> plain;

    /**
     * @param base  where scores stand
     * @param parts scores as {@link ScoreGrid#with} takes them, one array a part
     */
    public MixedGrids(ScoreGrid base, List<double[][]> parts) {
        this.base = base;
        this.parts = parts.stream().map(base::with).toList();
    }

    /**
     * @param scores  the weighted sums themselves, as {@link ScoreGrid#with} takes them
     * @param weights of the parts
     */
    public ScoreGrid of(double[][] scores, double... weights) {
        Require.that(weights.length == parts.size(), "weights", "must be one a part", weights.length);
        return base.with(scores, new Weighed(this, weights.clone()));
    }

    /** Of each part; empty if candidates are not connected, which they are in all parts or in none. */
    private synchronized List<double[]> adjustedMeans() {
        if (adjusted == null) {
            adjusted = parts.stream().flatMap(g -> g.adjustedMeans().stream()).toList();
        }
        return adjusted;
    }

    private synchronized List<double[]> plainMeans() {
        if (plain == null) {
            plain = parts.stream()
                    .map(g -> IntStream.range(0, base.candidates().size())
                            .mapToDouble(g::plainMean)
                            .toArray())
                    .toList();
        }
        return plain;
    }

    /** How a grid's scores come about. */
    record Weighed(MixedGrids of, double[] weights) {
        /** Empty if candidates are not connected, or two lie so close that rounding might put one before the other. */
        Optional<double[]> adjustedMeans() {
            List<double[]> means = of.adjustedMeans();
            if (means.size() < weights.length) {
                return Optional.empty();
            }
            double[] sums = IntStream.range(0, of.base.candidates().size())
                    .mapToDouble(c -> sum(means, c))
                    .toArray();
            double[] ascending = Arrays.stream(sums).sorted().toArray();
            return IntStream.range(1, ascending.length).anyMatch(i -> ascending[i] - ascending[i - 1] < APART)
                    ? Optional.empty()
                    : Optional.of(sums);
        }

        double plainMean(int candidate) {
            return sum(of.plainMeans(), candidate);
        }

        private double sum(List<double[]> parts, int candidate) {
            double sum = 0;
            for (int k = 0; k < weights.length; k++) {
                sum += weights[k] * parts.get(k)[candidate];
            }
            return sum;
        }

        /** Empty where all cells are to be gone through. */
        Optional<CrossedSums> between(PairPlaces.Places both, int first, int second) {
            int pair = first * of.base.candidates().size() + second;
            return of.known
                    .computeIfAbsent(pair, p -> of.sums(both, first, second))
                    .of(weights);
        }
    }

    private MixedSums sums(PairPlaces.Places both, int first, int second) {
        return new MixedSums(
                both.pattern(),
                parts.stream().map(g -> g.differences(both, first, second)).toList());
    }
}
