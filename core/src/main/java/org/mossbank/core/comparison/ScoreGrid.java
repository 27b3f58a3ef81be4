package org.mossbank.core.comparison;

import java.util.Arrays;
import java.util.BitSet;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.BiPredicate;
import java.util.function.Function;
import java.util.stream.IntStream;
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
    /** So many are kept; more would be those of one reading each, as when prompts are left out one by one. */
    private static final int MOST_PATTERNS = 256;

    private final List<String> candidates;
    private final List<String> prompts;
    private final List<String> raters;
    /** Prompt × raters + rater of each place, ascending. */
    private final int[] where;

    private final int[] promptOf;
    private final int[] raterOf;
    private final BitSet[] has;
    private final double[][] score;
    private final PromptGroups groups;
    /** The kind and the family of each prompt, numbered in the order of their names. */
    private final int[] kindOf;

    private final int[] familyOf;
    private final Map<BitSet, CrossedPattern> patterns;

    private ScoreGrid(ScoreGrid like, BitSet[] has, double[][] score) {
        candidates = like.candidates;
        prompts = like.prompts;
        raters = like.raters;
        where = like.where;
        promptOf = like.promptOf;
        raterOf = like.raterOf;
        kindOf = like.kindOf;
        familyOf = like.familyOf;
        groups = like.groups;
        patterns = like.patterns;
        this.has = has;
        this.score = score;
    }

    private ScoreGrid(List<ScoredCell> cells, PromptGroups groups) {
        this.groups = groups;
        patterns = new ConcurrentHashMap<>();
        candidates = names(cells, ScoredCell::candidate);
        prompts = names(cells, ScoredCell::prompt);
        raters = names(cells, ScoredCell::rater);
        kindOf = numbered(prompts.stream().map(groups.kindOf()).toList());
        familyOf = numbered(prompts.stream().map(groups.familyOf()).toList());
        Map<String, Integer> candidateAt = numbers(candidates);
        Map<String, Integer> promptAt = numbers(prompts);
        Map<String, Integer> raterAt = numbers(raters);
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
        Map<String, Integer> numbers = new TreeMap<>();
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
        Require.that(scores.length == candidates.size(), "scores", "must be one row a candidate", scores.length);
        double[][] copy = new double[scores.length][];
        for (int c = 0; c < copy.length; c++) {
            Require.that(scores[c].length == places(), "scores", "must be one a place", scores[c].length);
            copy[c] = scores[c].clone();
        }
        return new ScoreGrid(this, has, copy);
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
        BitSet[] fewer = new BitSet[has.length];
        for (int c = 0; c < fewer.length; c++) {
            fewer[c] = (BitSet) has[c].clone();
            fewer[c].and(places);
            if (fewer[c].isEmpty()) {
                return Optional.empty();
            }
        }
        return Optional.of(new ScoreGrid(this, fewer, score));
    }

    /** In alphabetical order. */
    public List<String> candidates() {
        return candidates;
    }

    /** The position of a candidate. */
    public int candidateAt(String candidate) {
        return Collections.binarySearch(candidates, candidate);
    }

    /** The position of the place of a prompt and a rater. */
    public int placeAt(String prompt, String rater) {
        return Arrays.binarySearch(
                where,
                Collections.binarySearch(prompts, prompt) * raters.size() + Collections.binarySearch(raters, rater));
    }

    List<String> prompts() {
        return prompts;
    }

    List<String> raters() {
        return raters;
    }

    /** How many places there are. */
    public int places() {
        return promptOf.length;
    }

    int promptOf(int place) {
        return promptOf[place];
    }

    int raterOf(int place) {
        return raterOf[place];
    }

    PromptGroups groups() {
        return groups;
    }

    boolean has(int candidate, int place) {
        return has[candidate].get(place);
    }

    double score(int candidate, int place) {
        return score[candidate][place];
    }

    /** How many scores a candidate has. */
    int count(int candidate) {
        return has[candidate].cardinality();
    }

    /** The mean of a candidate's scores as they are. */
    double plainMean(int candidate) {
        return has[candidate].stream()
                .mapToDouble(p -> score[candidate][p])
                .average()
                .orElseThrow();
    }

    /** Whether every score is one of 0 to {@code highest}. */
    boolean liesWithin(double highest) {
        return IntStream.range(0, score.length)
                .allMatch(c -> has[c].stream().allMatch(p -> score[c][p] >= 0 && score[c][p] <= highest));
    }

    /** The mean of one candidate's scores. */
    CrossedMean own(int candidate) {
        return mean(has[candidate], score[candidate]);
    }

    /** What lies between two candidates where both have a score; empty if that is nowhere. */
    Optional<CrossedMean> between(int first, int second) {
        BitSet both = (BitSet) has[first].clone();
        both.and(has[second]);
        if (both.isEmpty()) {
            return Optional.empty();
        }
        double[] differences = new double[places()];
        for (int place = both.nextSetBit(0); place >= 0; place = both.nextSetBit(place + 1)) {
            differences[place] = score[first][place] - score[second][place];
        }
        return Optional.of(mean(both, differences));
    }

    private CrossedMean mean(BitSet at, double[] values) {
        int[] places = new int[at.cardinality()];
        double[] there = new double[places.length];
        int n = 0;
        for (int place = at.nextSetBit(0); place >= 0; place = at.nextSetBit(place + 1)) {
            places[n] = place;
            there[n++] = values[place];
        }
        CrossedPattern pattern = patterns.get(at);
        if (pattern == null) {
            pattern = pattern(places);
            if (patterns.size() < MOST_PATTERNS) {
                patterns.put(at, pattern);
            }
        }
        return CrossedMean.of(pattern, pattern.cellValues(there));
    }

    private CrossedPattern pattern(int[] places) {
        int[] prompt = new int[places.length];
        int[] rater = new int[places.length];
        for (int i = 0; i < places.length; i++) {
            prompt[i] = promptOf[places[i]];
            rater[i] = raterOf[places[i]];
        }
        return new CrossedPattern(prompt, rater, familyOf, kindOf, raters.size());
    }
}
