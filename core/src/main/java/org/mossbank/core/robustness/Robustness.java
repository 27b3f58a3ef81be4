package org.mossbank.core.robustness;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.BiPredicate;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.mossbank.core.comparison.ScoreGrid;
import org.mossbank.core.comparison.ScoredCell;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.decision.Decision;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.core.decision.Evidence;
import org.mossbank.core.estimate.Require;

/**
 * What an outcome hangs on: what the rule would say without each prompt, rater, criterion and kind, and under other weights.
 *
 * <p>Agreement, and how many raters an answer has, stay those of the whole study: what is asked is whether scores carry the
 * outcome, not whether a smaller study would have been enough. Weights are taken evenly over all there are: the centres of the
 * equal parts into which a lattice cuts the simplex, \[ w_k = (n_k + 1 / K) / (N + 1), \quad \textstyle\sum_k n_k = N \] and along
 * each criterion from 0 to 1, the others in proportion. Nothing is drawn at random. Cost: a decision for each prompt, rater,
 * criterion, kind and weighting.
 *
 * @param whole      what the whole study says
 * @param without    what is left when one thing is left out; those that change it come first. Of more than 200 prompts those on which
 *                   candidates part most from how they stand
 * @param weightings how many weightings were tried; 0 with one criterion
 * @param same       share of them that says the same as the whole
 * @param best       share of weightings under which a candidate is recommended, by candidate
 * @param safe       share under which it is recommended or a safe choice
 * @param out        share under which it is out
 * @param along      what is said as one criterion's weight goes from 0 to 1
 */
public record Robustness(
        Statement whole,
        List<Without> without,
        int weightings,
        double same,
        Map<String, Double> best,
        Map<String, Double> safe,
        Map<String, Double> out,
        List<Along> along) {
    /** No more weightings than this: a finer lattice tells nothing more. */
    private static final int MOST_WEIGHTINGS = 150;

    private static final int STEPS = 20;
    /** Prompts left out one by one, at most. */
    public static final int MOST_PROMPTS = 200;

    public Robustness {
        without = List.copyOf(without);
        best = Map.copyOf(best);
        safe = Map.copyOf(safe);
        out = Map.copyOf(out);
        along = List.copyOf(along);
    }

    /** What may be left out. */
    public enum Factor {
        PROMPT,
        RATER,
        CRITERION,
        KIND
    }

    /** @param changes whether it says something else than the whole */
    public record Without(Factor factor, String name, Statement says, boolean changes) {}

    /** @param points by ascending weight */
    public record Along(String criterion, List<Point> points) {
        public Along {
            points = List.copyOf(points);
        }
    }

    /** @param weight of the criterion, in [0, 1] of all */
    public record Point(double weight, Statement says, boolean changes) {}

    /**
     * @param weights  of the criteria, as the rule has them
     * @param evidence of the whole study
     * @param level    confidence level of intervals
     * @return empty if the whole study has no scores
     */
    public static Optional<Robustness> of(
            GradedAnswers graded, double[] weights, DecisionRule rule, Evidence evidence, double level) {
        return graded.grid(weights).map(grid -> new Trying(graded, weights, rule, evidence, level).robustness(grid));
    }

    /** Decides again and again. */
    private static final class Trying {
        private final GradedAnswers graded;
        private final double[] weights;
        private final DecisionRule rule;
        private final Evidence evidence;
        private final double level;

        Trying(GradedAnswers graded, double[] weights, DecisionRule rule, Evidence evidence, double level) {
            Require.that(
                    weights.length == graded.criteria().size(), "weights", "must be one a criterion", weights.length);
            this.graded = graded;
            this.weights = weights;
            this.rule = rule;
            this.evidence = evidence;
            this.level = level;
        }

        Robustness robustness(ScoreGrid grid) {
            Statement whole = says(Optional.of(grid));
            Weighing weighing = graded.weighing();
            List<Without> without = leftOut(whole, grid, weighing);
            List<Statement> tried = lattice(weights.length).parallelStream()
                    .map(w -> says(weighing.tried(w)))
                    .toList();
            double same = tried.isEmpty()
                    ? 1
                    : tried.stream().filter(whole::saysAsMuchAs).count() / (double) tried.size();
            return new Robustness(
                    whole,
                    without,
                    tried.size(),
                    same,
                    shares(tried, s -> s.best().stream()),
                    shares(tried, s -> Stream.concat(s.best().stream(), s.safe().stream())),
                    shares(tried, s -> s.out().stream()),
                    weights.length < 2
                            ? List.of()
                            : IntStream.range(0, weights.length)
                                    .mapToObj(k -> along(k, whole, weighing))
                                    .toList());
        }

        private Statement says(Optional<ScoreGrid> grid) {
            Standings standings =
                    grid.map(g -> Standings.forDeciding(g, level)).orElse(new Standings(List.of(), List.of()));
            return Statement.of(Decision.of(rule, evidence.with(standings)), rule.margin());
        }

        /**
         * All prompts, or of many those on which candidates part most from how they stand: one among hundreds that is like the
         * others changes nothing, and leaving each out would take as many times as long.
         */
        private List<String> strangest() {
            List<String> prompts = graded.prompts();
            if (prompts.size() <= MOST_PROMPTS) {
                return prompts;
            }
            List<ScoredCell> cells = graded.cells(weights);
            Map<String, Double> ofCandidate = cells.stream()
                    .collect(Collectors.groupingBy(
                            ScoredCell::candidate, Collectors.averagingDouble(ScoredCell::score)));
            Map<String, Map<String, Double>> means = cells.stream()
                    .collect(Collectors.groupingBy(
                            ScoredCell::prompt,
                            Collectors.groupingBy(
                                    ScoredCell::candidate,
                                    Collectors.averagingDouble(
                                            c -> c.score() - Require.known(ofCandidate, c.candidate())))));
            return means.entrySet().stream()
                    .sorted(Comparator.comparingDouble((Map.Entry<String, Map<String, Double>> e) ->
                                    -spread(e.getValue().values()))
                            .thenComparing(Map.Entry::getKey))
                    .limit(MOST_PROMPTS)
                    .map(Map.Entry::getKey)
                    .toList();
        }

        private static double spread(Collection<Double> values) {
            double mean = values.stream().mapToDouble(v -> v).average().orElse(0);
            return values.stream().mapToDouble(v -> (v - mean) * (v - mean)).sum();
        }

        private List<Without> leftOut(Statement whole, ScoreGrid grid, Weighing weighing) {
            List<Supplier<Without>> all = new ArrayList<>();
            strangest()
                    .forEach(p -> all.add(() ->
                            without(Factor.PROMPT, p, whole, grid.without(p), (prompt, rater) -> !prompt.equals(p))));
            graded.raters()
                    .forEach(r ->
                            all.add(() -> without(Factor.RATER, r, whole, grid, (prompt, rater) -> !rater.equals(r))));
            if (graded.kinds().size() > 1) {
                graded.kinds()
                        .forEach(k -> all.add(() -> without(
                                Factor.KIND,
                                k,
                                whole,
                                grid,
                                (prompt, rater) ->
                                        !graded.groups().kindOf().apply(prompt).equals(k))));
            }
            for (int k = 0; k < weights.length; k++) {
                int criterion = k;
                double[] rest = weights.clone();
                rest[k] = 0;
                if (weights[k] > 0 && IntStream.range(0, rest.length).anyMatch(i -> rest[i] > 0)) {
                    all.add(() -> told(
                            Factor.CRITERION, graded.criteria().get(criterion), whole, says(weighing.tried(rest))));
                }
            }
            return all.parallelStream()
                    .map(Supplier::get)
                    .sorted(java.util.Comparator.comparing((Without w) -> !w.changes()))
                    .toList();
        }

        private Without without(
                Factor factor, String name, Statement whole, ScoreGrid grid, BiPredicate<String, String> kept) {
            return without(factor, name, whole, grid.keeping(kept), kept);
        }

        private Without without(
                Factor factor,
                String name,
                Statement whole,
                Optional<ScoreGrid> rest,
                BiPredicate<String, String> kept) {
            // Where some candidate has no score left, the others are compared without it.
            return told(
                    factor,
                    name,
                    whole,
                    says(rest.isPresent() ? rest : graded.keeping(kept).grid(weights)));
        }

        private static Without told(Factor factor, String name, Statement whole, Statement says) {
            return new Without(factor, name, says, !says.saysAsMuchAs(whole));
        }

        private Along along(int criterion, Statement whole, Weighing weighing) {
            double rest = 0;
            for (int k = 0; k < weights.length; k++) {
                rest += k == criterion ? 0 : weights[k];
            }
            double others = rest;
            List<Point> points = IntStream.rangeClosed(0, STEPS)
                    .parallel()
                    .mapToObj(i -> {
                        double weight = i / (double) STEPS;
                        double[] w = new double[weights.length];
                        for (int k = 0; k < w.length; k++) {
                            double share = others == 0 ? 1.0 / (w.length - 1) : weights[k] / others;
                            w[k] = k == criterion ? weight : (1 - weight) * share;
                        }
                        Statement says = says(weighing.tried(w));
                        return new Point(weight, says, !says.saysAsMuchAs(whole));
                    })
                    .toList();
            return new Along(graded.criteria().get(criterion), points);
        }
    }

    private static Map<String, Double> shares(
            List<Statement> tried, java.util.function.Function<Statement, Stream<String>> who) {
        Map<String, Double> shares = new TreeMap<>();
        tried.forEach(s -> who.apply(s).forEach(c -> shares.merge(c, 1.0 / tried.size(), Double::sum)));
        return shares;
    }

    /** Weightings of K criteria, as fine as there may be; none of one. */
    static List<double[]> lattice(int criteria) {
        if (criteria < 2) {
            return List.of();
        }
        int parts = 1;
        while (points(criteria, parts + 1) <= MOST_WEIGHTINGS) {
            parts++;
        }
        List<double[]> all = new ArrayList<>();
        fill(new int[criteria], 0, parts, parts, all);
        return all;
    }

    /** How many ways there are to share out so many parts. */
    private static double points(int criteria, int parts) {
        double ways = 1;
        for (int i = 1; i < criteria; i++) {
            ways = ways * (parts + i) / i;
        }
        return ways;
    }

    private static void fill(int[] given, int at, int left, int parts, List<double[]> all) {
        if (at == given.length - 1) {
            given[at] = left;
            double[] weights = new double[given.length];
            for (int k = 0; k < weights.length; k++) {
                weights[k] = (given[k] + 1.0 / given.length) / (parts + 1);
            }
            all.add(weights);
            return;
        }
        for (int n = 0; n <= left; n++) {
            given[at] = n;
            fill(given, at + 1, left - n, parts, all);
        }
    }
}
