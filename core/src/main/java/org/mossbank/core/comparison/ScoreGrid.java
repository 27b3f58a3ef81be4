package org.mossbank.core.comparison;

import java.util.Arrays;
import java.util.BitSet;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiPredicate;
import java.util.function.Function;
import java.util.function.IntUnaryOperator;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;

/**
 * Scores by candidate and place, a place being a prompt and a rater; with gaps. Numbered once, so that every pair of candidates
 * need not look names up again. What follows from where scores stand alone is kept, and shared by grids with other scores at the
 * same places.
 *
 * <p>Scores in points of 100, or in any unit that is the same for all. Several scores of one candidate at one place count as
 * their mean.
 */
public final class ScoreGrid {
    private final List<String> candidates;
    private final List<String> prompts;
    private final List<String> raters;
    /** Prompt × raters + rater of each place, ascending. */
    private final int[] where;

    private final int[] promptOf;
    private final int[] raterOf;
    private final Map<String, Integer> candidateAt;
    private final Map<String, Integer> promptAt;
    private final Map<String, Integer> raterAt;
    private final BitSet[] has;
    private final double[][] score;
    private final PromptGroups groups;
    /** The kind and the family of each prompt, numbered in the order of their names. */
    private final int[] familyOf;

    private final PairPlaces.Layout layout;
    private final PairPlaces there;
    /** The prompt that this is without, of the grid that has it; -1 where that is not known. */
    private final int leftOut;

    @Nullable
    private final ScoreGrid whole;

    /** One with scores at the same places. */
    @Nullable
    private final ScoreGrid like;

    /** Of what its scores are sums, if they are. */
    private final Optional<MixedGrids.Weighed> mixed;

    private final PairMeans pairs;

    @Nullable
    private volatile AdditiveModel model;

    /** @param leftOut the prompt that this is without; -1 for places of its own, or those of the other grid */
    private ScoreGrid(ScoreGrid like, BitSet[] has, double[][] score, int leftOut, Optional<MixedGrids.Weighed> mixed) {
        this.mixed = mixed;
        candidates = like.candidates;
        prompts = like.prompts;
        raters = like.raters;
        where = like.where;
        promptOf = like.promptOf;
        raterOf = like.raterOf;
        candidateAt = like.candidateAt;
        promptAt = like.promptAt;
        raterAt = like.raterAt;
        familyOf = like.familyOf;
        groups = like.groups;
        layout = like.layout;
        this.has = has;
        this.score = score;
        this.leftOut = leftOut;
        whole = leftOut < 0 ? null : like;
        this.like = has == like.has ? like : null;
        if (has == like.has) {
            there = like.there;
        } else {
            there = leftOut < 0 ? new PairPlaces(layout, has) : new PairPlaces(like.there, leftOut, has);
        }
        pairs = new PairMeans(there, score, mixed, leftOut < 0 ? Optional.empty() : Optional.of(like.pairs));
    }

    private ScoreGrid(List<ScoredCell> cells, PromptGroups groups) {
        this.groups = groups;
        candidates = names(cells, ScoredCell::candidate);
        prompts = names(cells, ScoredCell::prompt);
        raters = names(cells, ScoredCell::rater);
        int[] kindOf = numbered(prompts.stream().map(groups.kindOf()).toList());
        familyOf = numbered(prompts.stream().map(groups.familyOf()).toList());
        candidateAt = numbers(candidates);
        promptAt = numbers(prompts);
        raterAt = numbers(raters);
        int[] whereIs = new int[cells.size()];
        for (int i = 0; i < whereIs.length; i++) {
            ScoredCell cell = cells.get(i);
            whereIs[i] = Require.known(promptAt, cell.prompt()) * raters.size() + Require.known(raterAt, cell.rater());
        }
        where = IntStream.of(whereIs).distinct().sorted().toArray();
        promptOf = IntStream.of(where).map(w -> w / raters.size()).toArray();
        raterOf = IntStream.of(where).map(w -> w % raters.size()).toArray();
        has = new BitSet[candidates.size()];
        Arrays.setAll(has, c -> new BitSet(where.length));
        score = new double[candidates.size()][where.length];
        int[][] count = new int[candidates.size()][where.length];
        for (int i = 0; i < whereIs.length; i++) {
            int candidate = Require.known(candidateAt, cells.get(i).candidate());
            int place = Arrays.binarySearch(where, whereIs[i]);
            has[candidate].set(place);
            count[candidate][place]++;
            score[candidate][place] += cells.get(i).score();
        }
        for (int c = 0; c < score.length; c++) {
            for (int place = 0; place < where.length; place++) {
                score[c][place] /= Math.max(1, count[c][place]);
            }
        }
        layout = new PairPlaces.Layout(promptOf, raterOf, familyOf, kindOf, raters.size());
        there = new PairPlaces(layout, has);
        leftOut = -1;
        whole = null;
        like = null;
        mixed = Optional.empty();
        pairs = new PairMeans(there, score, mixed, Optional.empty());
    }

    /** @param cells any order */
    public static ScoreGrid of(List<ScoredCell> cells, PromptGroups groups) {
        return new ScoreGrid(cells, groups);
    }

    private static List<String> names(List<ScoredCell> cells, Function<ScoredCell, String> factor) {
        return cells.stream().map(factor).distinct().sorted().toList();
    }

    private static int[] numbered(List<String> values) {
        Map<String, Integer> numbers =
                numbers(values.stream().distinct().sorted().toList());
        return values.stream().mapToInt(v -> Require.known(numbers, v)).toArray();
    }

    private static Map<String, Integer> numbers(List<String> names) {
        Map<String, Integer> numbers = new HashMap<>();
        names.forEach(n -> numbers.put(n, numbers.size()));
        return numbers;
    }

    /**
     * Other scores at the same places.
     *
     * @param scores by candidate in alphabetical order, then by place: prompts, within them raters, in alphabetical order. Those
     *               where this grid has none are not looked at
     * @throws IllegalArgumentException if there are more or fewer
     */
    public ScoreGrid with(double[][] scores) {
        return with(scores, Optional.empty());
    }

    ScoreGrid with(double[][] scores, MixedGrids.Weighed mixed) {
        return with(scores, Optional.of(mixed));
    }

    private ScoreGrid with(double[][] scores, Optional<MixedGrids.Weighed> mixed) {
        Require.that(scores.length == candidates.size(), "scores", "must be one row a candidate", scores.length);
        double[][] copy = new double[scores.length][];
        for (int c = 0; c < copy.length; c++) {
            Require.that(scores[c].length == places(), "scores", "must be one a place", scores[c].length);
            copy[c] = scores[c].clone();
        }
        return new ScoreGrid(this, has, copy, -1, mixed);
    }

    /**
     * Without some of the places.
     *
     * @param kept whether a place is, by its prompt and its rater
     * @return empty if some candidate has no score left
     */
    public Optional<ScoreGrid> keeping(BiPredicate<String, String> kept) {
        BitSet places = new BitSet(places());
        for (int place = 0; place < places(); place++) {
            places.set(place, kept.test(prompts.get(promptOf[place]), raters.get(raterOf[place])));
        }
        return keeping(places, -1);
    }

    /** Without one prompt, or empty if some candidate has no score left; cheaper than {@link #keeping}. */
    public Optional<ScoreGrid> without(String prompt) {
        int leftOut = Collections.binarySearch(prompts, prompt);
        BitSet places = new BitSet(places());
        for (int place = 0; place < places(); place++) {
            places.set(place, promptOf[place] != leftOut);
        }
        // A wording that goes leaves its family, and cells with other values.
        boolean alone = leftOut >= 0 && IntStream.range(0, familyOf.length).allMatch(p -> familyOf[p] == p);
        return keeping(places, alone ? leftOut : -1);
    }

    private Optional<ScoreGrid> keeping(BitSet places, int leftOut) {
        BitSet[] fewer = new BitSet[has.length];
        for (int c = 0; c < fewer.length; c++) {
            fewer[c] = (BitSet) has[c].clone();
            fewer[c].and(places);
            if (fewer[c].isEmpty()) {
                return Optional.empty();
            }
        }
        return Optional.of(new ScoreGrid(this, fewer, score, leftOut, Optional.empty()));
    }

    /** In alphabetical order. */
    public List<String> candidates() {
        return candidates;
    }

    /**
     * The position of a candidate.
     *
     * @throws IllegalArgumentException if it has no score
     */
    public int candidateAt(String candidate) {
        return Require.known(candidateAt, candidate);
    }

    /**
     * The position of the place of a prompt and a rater.
     *
     * @throws IllegalArgumentException if one of them has no score
     */
    public int placeAt(String prompt, String rater) {
        return Arrays.binarySearch(
                where, Require.known(promptAt, prompt) * raters.size() + Require.known(raterAt, rater));
    }

    public List<String> prompts() {
        return prompts;
    }

    List<String> raters() {
        return raters;
    }

    /** How many places there are. */
    public int places() {
        return promptOf.length;
    }

    public int promptOf(int place) {
        return promptOf[place];
    }

    int raterOf(int place) {
        return raterOf[place];
    }

    PromptGroups groups() {
        return groups;
    }

    public boolean has(int candidate, int place) {
        return has[candidate].get(place);
    }

    public double score(int candidate, int place) {
        return score[candidate][place];
    }

    /** Made once. */
    AdditiveModel model() {
        AdditiveModel made = model;
        if (made == null) {
            made = like == null ? new AdditiveModel(this) : new AdditiveModel(this, like.model());
            model = made;
        }
        return made;
    }

    /** Candidate means with every prompt and rater at weight 1; empty if they are not connected. */
    Optional<double[]> adjustedMeans() {
        Optional<double[]> known = mixed.flatMap(MixedGrids.Weighed::adjustedMeans);
        if (known.isPresent()) {
            return known;
        }
        return whole == null ? model().means() : whole.model().meansWithout(leftOut);
    }

    /** How many scores a candidate has. */
    int count(int candidate) {
        return has[candidate].cardinality();
    }

    /** The mean of a candidate's scores as they are. */
    public double plainMean(int candidate) {
        return mixed.map(m -> m.plainMean(candidate)).orElseGet(() -> meanOfScores(candidate));
    }

    private double meanOfScores(int candidate) {
        double sum = 0;
        int n = 0;
        for (int p = has[candidate].nextSetBit(0); p >= 0; p = has[candidate].nextSetBit(p + 1)) {
            sum += score[candidate][p];
            n++;
        }
        return sum / n;
    }

    /** Whether every score is one of 0 to {@code highest}. */
    boolean liesWithin(double highest) {
        return IntStream.range(0, score.length)
                .allMatch(c -> has[c].stream().allMatch(p -> score[c][p] >= 0 && score[c][p] <= highest));
    }

    /** The mean of one candidate's scores. */
    CrossedMean own(int candidate) {
        return pairs.own(candidate);
    }

    /** What lies between two candidates where both have a score; empty if that is nowhere. */
    Optional<CrossedMean> between(int first, int second) {
        return pairs.between(first, second);
    }

    /**
     * What a choice among candidates lies over one of them, where both have a score.
     *
     * @param choice the position of the candidate that is chosen at a place, -1 for none
     * @param other  the position of the one
     * @return empty if that is nowhere
     */
    public Optional<CrossedMean> choosing(IntUnaryOperator choice, int other) {
        return pairs.choosing(choice, other, has);
    }

    /** What lies between two candidates, at the cells of a pattern of theirs. */
    double[] differences(PairPlaces.Places both, int first, int second) {
        return pairs.differences(both, first, second);
    }
}
