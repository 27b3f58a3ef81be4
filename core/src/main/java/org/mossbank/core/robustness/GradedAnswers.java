package org.mossbank.core.robustness;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiPredicate;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
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
    /** Numbered once, and shared by those that are a part of others: scores are added up by number. */
    private final List<GradedRow.Place> places;

    private final List<GradedRow> rows;

    @Nullable
    private Weighing weighing;

    private GradedAnswers(
            List<String> criteria, PromptGroups groups, List<GradedRow.Place> places, List<GradedRow> rows) {
        this.criteria = criteria;
        this.groups = groups;
        this.places = places;
        this.rows = rows;
    }

    private GradedAnswers with(List<GradedRow> some) {
        return new GradedAnswers(criteria, groups, places, some);
    }

    /** Names what one rater gave one answer. */
    public record Key(String answer, String rater) {
        @Override
        public int hashCode() {
            return GradedRow.mixed(answer.hashCode(), rater.hashCode());
        }
    }

    /** Gathers grades, in any order. */
    public static final class Accumulator {
        private final List<String> criteria;
        private final Map<Key, GradedRow> rows = new HashMap<>();
        private final Map<GradedRow.Place, Integer> places = new HashMap<>();
        private final List<GradedRow.Place> inOrder = new ArrayList<>();

        /** Grades mostly come one criterion after the other. */
        @Nullable
        private GradedRow last;

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
            // Words are made where they are needed alone, as this is called for every grade.
            if (level < 0 || level > highest) {
                throw new IllegalArgumentException("level must lie in [0, " + highest + "]: " + level);
            }
            GradedRow row = last;
            if (row == null
                    || !row.key().answer().equals(answer)
                    || !row.key().rater().equals(rater)) {
                row = rows.computeIfAbsent(
                        new Key(answer, rater), k -> row(k, new GradedRow.Place(candidate, prompt, rater)));
                last = row;
            }
            row.graded(criterion, level / (double) highest, cap);
        }

        private GradedRow row(Key key, GradedRow.Place place) {
            Integer known = places.putIfAbsent(place, inOrder.size());
            if (known == null) {
                inOrder.add(place);
            }
            int at = known == null ? inOrder.size() - 1 : known;
            return new GradedRow(key, inOrder.get(at), at, criteria.size());
        }

        public GradedAnswers snapshot(PromptGroups groups) {
            return new GradedAnswers(criteria, groups, List.copyOf(inOrder), List.copyOf(rows.values()));
        }
    }

    public List<String> criteria() {
        return criteria;
    }

    /** Those that are kept, by prompt and rater. */
    GradedAnswers keeping(BiPredicate<String, String> kept) {
        return with(rows.stream()
                .filter(r -> kept.test(r.place().prompt(), r.place().rater()))
                .toList());
    }

    /** Those of some candidates; itself if there are no others, so that what was worked out of it serves again. */
    public GradedAnswers ofCandidates(Collection<String> some) {
        List<GradedRow> own =
                rows.stream().filter(r -> some.contains(r.place().candidate())).toList();
        return own.size() == rows.size() ? this : with(own);
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
        return rows.stream().map(r -> r.place().prompt()).distinct().sorted().toList();
    }

    List<String> raters() {
        return rows.stream().map(r -> r.place().rater()).distinct().sorted().toList();
    }

    List<String> kinds() {
        return rows.stream()
                .map(r -> groups.kindOf().apply(r.place().prompt()))
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
        double[] sum = new double[places.size()];
        int[] count = new int[sum.length];
        for (GradedRow row : rows) {
            double score = row.score(weights);
            if (!Double.isNaN(score)) {
                sum[row.at()] += score;
                count[row.at()]++;
            }
        }
        List<ScoredCell> cells = new ArrayList<>();
        for (int at = 0; at < sum.length; at++) {
            if (count[at] > 0) {
                GradedRow.Place place = places.get(at);
                cells.add(new ScoredCell(place.candidate(), place.prompt(), place.rater(), sum[at] / count[at]));
            }
        }
        return cells;
    }

    /** Scores by answer and rater; what has none is left out. */
    public Map<Key, Double> scoresOfAnswers(double... weights) {
        Map<Key, Double> scores = new HashMap<>();
        for (GradedRow row : rows) {
            double score = row.score(weights);
            if (!Double.isNaN(score)) {
                scores.put(row.key(), score);
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
    public synchronized Weighing weighing() {
        Weighing made = weighing;
        if (made == null) {
            made = new Weighing(this, rows);
            weighing = made;
        }
        return made;
    }
}
