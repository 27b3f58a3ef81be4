package org.mossbank.core.robustness;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiPredicate;
import java.util.stream.Collectors;
import org.mossbank.core.comparison.PromptGroups;
import org.mossbank.core.comparison.ScoreGrid;
import org.mossbank.core.comparison.ScoredCell;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.rubric.OverallScore;

/**
 * The grades of a study by answer and rater, from which scores under any weights follow without reading them anew.
 *
 * <p>\[ s = \min\left(\text{cap}, \; 100 \sum_k w_k g_k / L_k \, / \sum_k w_k\right) \] over the criteria that were graded, as
 * {@link OverallScore} has it; several attempts of one candidate on one prompt by one rater count as their mean.
 */
public final class GradedAnswers {
    private final List<String> criteria;
    private final PromptGroups groups;
    private final List<Row> rows;

    private GradedAnswers(List<String> criteria, PromptGroups groups, List<Row> rows) {
        this.criteria = criteria;
        this.groups = groups;
        this.rows = rows;
    }

    /** Where a score stands. */
    private record Place(String candidate, String prompt, String rater) {
        @Override
        public int hashCode() {
            return mixed(mixed(candidate.hashCode(), prompt.hashCode()), rater.hashCode());
        }
    }

    /** Names what one rater gave one answer. */
    public record Key(String answer, String rater) {
        @Override
        public int hashCode() {
            return mixed(answer.hashCode(), rater.hashCode());
        }
    }

    /** Keys that count up, as p1 and p2 do, have hashes that lie close, and a sum of multiples by 31 would meet again and again. */
    private static int mixed(int one, int other) {
        int spread = one * 0x9E3779B9;
        return (spread ^ spread >>> 15) + other;
    }

    /** One rater's grades of one answer, as shares of the highest level; NaN where a criterion was not applicable. */
    private static final class Row {
        private final Key key;
        private final Place place;
        private final double[] share;
        private double cap = OverallScore.HIGHEST;

        Row(Key key, Place place, int criteria) {
            this.key = key;
            this.place = place;
            this.share = new double[criteria];
            Arrays.fill(share, Double.NaN);
        }

        /** Whether every criterion was graded and nothing caps the score: then it is a sum over criteria. */
        boolean isPlain() {
            if (cap < OverallScore.HIGHEST) {
                return false;
            }
            for (double one : share) {
                if (Double.isNaN(one)) {
                    return false;
                }
            }
            return true;
        }

        /** NaN where no criterion with weight was graded. */
        double score(double[] weights) {
            double sum = 0;
            double total = 0;
            for (int k = 0; k < weights.length; k++) {
                if (!Double.isNaN(share[k])) {
                    sum += weights[k] * share[k];
                    total += weights[k];
                }
            }
            return total == 0 ? Double.NaN : Math.min(cap, OverallScore.HIGHEST * sum / total);
        }
    }

    /** Gathers grades, in any order. */
    public static final class Accumulator {
        private final List<String> criteria;
        private final Map<Key, Row> rows = new HashMap<>();

        /** @param criteria by name, in the order of weights */
        public Accumulator(List<String> criteria) {
            this.criteria = List.copyOf(criteria);
        }

        /**
         * @param answer    one attempt of a candidate on a prompt
         * @param criterion its position
         * @param level     0 … highest
         * @param cap       the most that the answer may score with this grade, in [0, 100]
         */
        public void add(
                String candidate,
                String prompt,
                String rater,
                String answer,
                int criterion,
                int level,
                int highest,
                double cap) {
            Require.that(level >= 0 && level <= highest, "level", "must lie in [0, " + highest + "]", level);
            Row row = rows.computeIfAbsent(
                    new Key(answer, rater), k -> new Row(k, new Place(candidate, prompt, rater), criteria.size()));
            row.share[criterion] = level / (double) highest;
            row.cap = Math.min(row.cap, cap);
        }

        public GradedAnswers snapshot(PromptGroups groups) {
            return new GradedAnswers(criteria, groups, List.copyOf(rows.values()));
        }
    }

    public List<String> criteria() {
        return criteria;
    }

    /** Those that are kept, by prompt and rater. */
    GradedAnswers keeping(BiPredicate<String, String> kept) {
        return new GradedAnswers(
                criteria,
                groups,
                rows.stream()
                        .filter(r -> kept.test(r.place.prompt(), r.place.rater()))
                        .toList());
    }

    /** Those of some candidates. */
    public GradedAnswers ofCandidates(Collection<String> some) {
        return new GradedAnswers(
                criteria,
                groups,
                rows.stream().filter(r -> some.contains(r.place.candidate())).toList());
    }

    /** Those with prompts of one kind. */
    public GradedAnswers ofKind(String kind) {
        return keeping((prompt, rater) -> groups.kindOf().apply(prompt).equals(kind));
    }

    /** Those to some prompts. */
    public GradedAnswers ofPrompts(Collection<String> some) {
        return keeping((prompt, rater) -> some.contains(prompt));
    }

    PromptGroups groups() {
        return groups;
    }

    List<String> prompts() {
        return rows.stream().map(r -> r.place.prompt()).distinct().sorted().toList();
    }

    List<String> raters() {
        return rows.stream().map(r -> r.place.rater()).distinct().sorted().toList();
    }

    List<String> kinds() {
        return rows.stream()
                .map(r -> groups.kindOf().apply(r.place.prompt()))
                .distinct()
                .sorted()
                .toList();
    }

    /**
     * @param weights of the criteria, at least 0
     * @return empty if nothing with weight was graded
     */
    public Optional<ScoreGrid> grid(double... weights) {
        List<ScoredCell> cells = cells(weights);
        return cells.isEmpty() ? Optional.empty() : Optional.of(ScoreGrid.of(cells, groups));
    }

    /**
     * Scores by candidate, prompt and rater.
     *
     * @param weights of the criteria, at least 0
     */
    public List<ScoredCell> cells(double... weights) {
        Require.that(weights.length == criteria.size(), "weights", "must be one a criterion", weights.length);
        Map<Place, double[]> sums = new HashMap<>();
        for (Row row : rows) {
            double score = row.score(weights);
            if (!Double.isNaN(score)) {
                double[] sum = sums.computeIfAbsent(row.place, p -> new double[2]);
                sum[0] += score;
                sum[1]++;
            }
        }
        List<ScoredCell> cells = new ArrayList<>();
        sums.forEach((p, sum) -> cells.add(new ScoredCell(p.candidate(), p.prompt(), p.rater(), sum[0] / sum[1])));
        return cells;
    }

    /** Scores by answer and rater; what has none is left out. */
    public Map<Key, Double> scoresOfAnswers(double... weights) {
        Map<Key, Double> scores = new HashMap<>();
        for (Row row : rows) {
            double score = row.score(weights);
            if (!Double.isNaN(score)) {
                scores.put(row.key, score);
            }
        }
        return scores;
    }

    /** The mean score of each answer over its raters. */
    public Map<String, Double> meansOfAnswers(double... weights) {
        return scoresOfAnswers(weights).entrySet().stream()
                .collect(Collectors.groupingBy(
                        e -> e.getKey().answer(), Collectors.averagingDouble(Map.Entry::getValue)));
    }

    /** Grids under many weights: what follows from where scores stand alone is worked out once. */
    public Weighing weighing() {
        return new Weighing();
    }

    /** Not safe for several threads to make, safe to use. */
    public final class Weighing {
        private final Optional<ScoreGrid> base;
        /** The place and candidate of each row in the base. */
        private final int[] candidateOf;

        private final int[] placeOf;

        private final int[][] count;
        /** The mean score on each criterion alone, by candidate and place; none where scores are not a sum of them. */
        private final double[][][] byCriterion;

        private Weighing() {
            double[] all = new double[criteria.size()];
            Arrays.fill(all, 1);
            base = GradedAnswers.this.grid(all);
            candidateOf = new int[rows.size()];
            placeOf = new int[rows.size()];
            count = base.map(b -> new int[b.candidates().size()][b.places()]).orElse(new int[0][]);
            base.ifPresent(b -> {
                for (int i = 0; i < placeOf.length; i++) {
                    Place place = rows.get(i).place;
                    candidateOf[i] = b.candidateAt(place.candidate());
                    placeOf[i] = b.placeAt(place.prompt(), place.rater());
                    count[candidateOf[i]][placeOf[i]]++;
                }
            });
            byCriterion = rows.stream().allMatch(Row::isPlain) ? byCriterion() : new double[0][][];
        }

        private double[][][] byCriterion() {
            double[][][] means = new double[criteria.size()][count.length][];
            for (double[][] one : means) {
                for (int c = 0; c < one.length; c++) {
                    one[c] = new double[count[c].length];
                }
            }
            for (int i = 0; i < placeOf.length; i++) {
                for (int k = 0; k < means.length; k++) {
                    means[k][candidateOf[i]][placeOf[i]] +=
                            OverallScore.HIGHEST * rows.get(i).share[k] / count[candidateOf[i]][placeOf[i]];
                }
            }
            return means;
        }

        private double[][] weighed(double[] weights, double total) {
            double[][] scores = new double[count.length][];
            for (int c = 0; c < scores.length; c++) {
                double[] own = new double[count[c].length];
                for (int k = 0; k < weights.length; k++) {
                    double weight = weights[k] / total;
                    double[] one = byCriterion[k][c];
                    for (int p = 0; p < own.length; p++) {
                        own[p] += weight * one[p];
                    }
                }
                scores[c] = own;
            }
            return scores;
        }

        /**
         * @param weights of the criteria, at least 0
         * @return empty if nothing with weight was graded
         */
        public Optional<ScoreGrid> grid(double... weights) {
            if (base.isEmpty()) {
                return base;
            }
            double total = Arrays.stream(weights).sum();
            if (byCriterion.length > 0 && total > 0) {
                return Optional.of(base.get().with(weighed(weights, total)));
            }
            double[][] scores = new double[count.length][base.get().places()];
            for (int i = 0; i < placeOf.length; i++) {
                double score = rows.get(i).score(weights);
                if (Double.isNaN(score)) {
                    // Some answer has no grade with weight: then scores stand elsewhere than in the base.
                    return GradedAnswers.this.grid(weights);
                }
                scores[candidateOf[i]][placeOf[i]] += score / count[candidateOf[i]][placeOf[i]];
            }
            return Optional.of(base.get().with(scores));
        }
    }
}
