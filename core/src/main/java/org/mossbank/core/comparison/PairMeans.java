package org.mossbank.core.comparison;

import java.util.BitSet;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.DoubleBinaryOperator;
import java.util.function.IntUnaryOperator;
import java.util.stream.IntStream;

/** The means of a grid's candidates, and of what lies between each two. Goes through all cells only where sums that are known do not tell. */
final class PairMeans {
    private final PairPlaces there;
    private final double[][] score;
    private final Optional<MixedGrids.Weighed> mixed;
    /** Those of the grid that this one is without a prompt of. */
    private final Optional<PairMeans> whole;

    private final Map<Integer, CrossedSums> sums = new ConcurrentHashMap<>();

    /** @param score by candidate and place */
    PairMeans(PairPlaces there, double[][] score, Optional<MixedGrids.Weighed> mixed, Optional<PairMeans> whole) {
        this.there = there;
        this.score = score;
        this.mixed = mixed;
        this.whole = whole;
    }

    CrossedMean own(int candidate) {
        PairPlaces.Places places = there.of(candidate, candidate);
        return CrossedMean.of(places.pattern(), values(places, (first, second) -> first, candidate, candidate));
    }

    Optional<CrossedMean> between(int first, int second) {
        return rest(first, second).or(() -> worked(there.of(first, second), first, second));
    }

    /** From those of the whole; empty where all cells are to be gone through. */
    private Optional<CrossedMean> rest(int first, int second) {
        return whole.flatMap(all -> there.rest(first, second)
                .flatMap(rest -> all.without(rest, first, second).map(left -> CrossedMean.of(rest.pattern(), left))));
    }

    private Optional<CrossedMean> worked(PairPlaces.Places both, int first, int second) {
        if (both.at().length == 0) {
            return Optional.empty();
        }
        return Optional.of(mixed.flatMap(m -> m.between(both, first, second))
                .map(known -> CrossedMean.of(both.pattern(), known))
                .orElseGet(() -> CrossedMean.of(both.pattern(), differences(both, first, second))));
    }

    private Optional<CrossedSums> without(PairPlaces.Rest rest, int first, int second) {
        PairPlaces.Places both = rest.whole();
        double[] x = score[first];
        double[] y = score[second];
        int[] at = both.at();
        return sums.computeIfAbsent(
                        first * score.length + second,
                        pair -> CrossedSums.of(both.pattern(), differences(both, first, second)))
                .without(both.pattern(), rest.pattern(), rest.family(), i -> x[at[i]] - y[at[i]]);
    }

    /** @param has places of each candidate */
    Optional<CrossedMean> choosing(IntUnaryOperator choice, int other, BitSet[] has) {
        BitSet both = new BitSet();
        double[] over = new double[score[other].length];
        for (int place = 0; place < over.length; place++) {
            int chosen = choice.applyAsInt(place);
            if (chosen >= 0 && has[chosen].get(place) && has[other].get(place)) {
                both.set(place);
                over[place] = score[chosen][place] - score[other][place];
            }
        }
        if (both.isEmpty()) {
            return Optional.empty();
        }
        PairPlaces.Places places = there.of(both);
        double[] values = IntStream.of(places.at()).mapToDouble(p -> over[p]).toArray();
        return Optional.of(CrossedMean.of(places.pattern(), places.pattern().cellValues(values)));
    }

    /** Of the pattern's cells. */
    double[] differences(PairPlaces.Places both, int first, int second) {
        return values(both, (x, y) -> x - y, first, second);
    }

    private double[] values(PairPlaces.Places places, DoubleBinaryOperator value, int first, int second) {
        int[] at = places.at();
        double[] x = score[first];
        double[] y = score[second];
        double[] values = new double[at.length];
        for (int i = 0; i < values.length; i++) {
            values[i] = value.applyAsDouble(x[at[i]], y[at[i]]);
        }
        return places.pattern().cellValues(values);
    }
}
