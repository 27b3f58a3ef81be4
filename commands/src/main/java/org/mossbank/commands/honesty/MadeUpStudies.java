package org.mossbank.commands.honesty;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.OptionalInt;
import java.util.SortedMap;
import java.util.SortedSet;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.random.RandomGenerator;
import java.util.stream.IntStream;
import org.hipparchus.special.Erf;
import org.mossbank.core.agreement.KrippendorffAlpha;
import org.mossbank.core.assignment.Assignment;
import org.mossbank.core.assignment.GradingTask;
import org.mossbank.core.assignment.PlanOptions;
import org.mossbank.core.assignment.SheetPlan;
import org.mossbank.core.comparison.ScoredCell;
import org.mossbank.core.estimate.Resamples;

/**
 * Studies of one sort with a truth that is known: on each of three criteria a latent value = base + kind + lead + prompt +
 * candidate × prompt (+ attempt) + rater + rater × candidate + noise, each effect drawn once as a part shared by the criteria
 * and a part of each one's own; thresholds cut it into five levels.
 */
final class MadeUpStudies {
    private static final double[] WEIGHTS = {0.5, 0.25, 0.25};
    private static final double[] KINDS = {-6, -2, 2, 6};
    private static final double[] THRESHOLDS = {12.5, 37.5, 62.5, 87.5};
    private static final double OWN_CANDIDATE_PROMPT = 2 / 3.0;
    private static final double ATTEMPT = 6;
    private static final double FAVOUR = 20;
    private static final double FAVOURING = 1 / 8.0;
    private static final double CARELESS = 0.1;
    private static final double FAR_AHEAD = 15;

    private final Conditions conditions;
    private final SortedMap<String, List<Integer>> plan;
    private final double[] lead;
    private final double[] truth;

    MadeUpStudies(Conditions conditions) {
        this.conditions = conditions;
        this.plan = plan();
        this.lead = leads();
        this.truth = IntStream.range(0, lead.length).mapToDouble(this::expected).toArray();
    }

    /** The expected score of each candidate, over prompts and raters of the sort. */
    double[] truth() {
        return truth.clone();
    }

    /** The expected score of each candidate on prompts of one kind. */
    double[] truthOfKind(int kind) {
        return IntStream.range(0, lead.length)
                .mapToDouble(c -> expectedOfKind(lead[c], c, kind))
                .toArray();
    }

    static String kindOf(String prompt) {
        return prompt.substring(0, prompt.indexOf('-'));
    }

    /** A shared and an own standard deviation. */
    private record Sd(double shared, double own) {
        double[] draw(RandomGenerator random) {
            double common = shared * random.nextGaussian();
            return IntStream.range(0, WEIGHTS.length)
                    .mapToDouble(c -> common + own * random.nextGaussian())
                    .toArray();
        }

        double variance() {
            return shared * shared + own * own;
        }

        Sd times(double factor) {
            return new Sd(factor * shared, factor * own);
        }
    }

    private static final Sd PROMPT = new Sd(8, 6);

    private Sd candidatePrompt(int candidate) {
        double shared = conditions.latent().candidatePrompt();
        Sd usual = new Sd(shared, shared * OWN_CANDIDATE_PROMPT);
        return candidate == conditions.candidates() - 1
                ? usual.times(conditions.latent().erratic())
                : usual;
    }

    private Sd rater() {
        return switch (conditions.raterSort()) {
            case GOOD -> new Sd(3.3, 2.2);
            case STRICT_AND_KIND -> new Sd(10, 6.6);
            default -> new Sd(5, 3.3);
        };
    }

    private Sd raterCandidate() {
        return conditions.raterSort() == Conditions.RaterSort.GOOD ? new Sd(2.5, 1.7) : new Sd(3.3, 2.2);
    }

    private Sd noise() {
        return switch (conditions.raterSort()) {
            case GOOD -> new Sd(4, 8);
            case NOISY -> new Sd(9, 19);
            default -> new Sd(6, 12.6);
        };
    }

    private Sd attempt() {
        return conditions.attempts() > 1 ? new Sd(ATTEMPT, ATTEMPT) : new Sd(0, 0);
    }

    private SortedMap<String, List<Integer>> plan() {
        SortedMap<String, List<Integer>> all = new TreeMap<>();
        int each = conditions.raters() / conditions.teams();
        for (int team = 0; team < conditions.teams(); team++) {
            SortedSet<String> names = new TreeSet<>();
            for (int r = team * each; r < (team + 1) * each; r++) {
                names.add(String.format("%03d", r));
            }
            List<GradingTask.PromptTask> prompts = new ArrayList<>();
            for (int k = 0; k < conditions.kinds(); k++) {
                for (int p = 0; p < conditions.prompts(); p++) {
                    if (p % conditions.teams() == team) {
                        String prompt = "k" + k + "-" + p;
                        prompts.add(new GradingTask.PromptTask(
                                prompt, "k" + k, List.of(new GradingTask.Entry(prompt + "-all", "all"))));
                    }
                }
            }
            PlanOptions options = new PlanOptions(OptionalInt.of(Math.min(each, conditions.anAnswer())), 0);
            for (SheetPlan sheet : Assignment.plan(GradingTask.open(names, prompts), options, Resamples.generator(1))) {
                all.computeIfAbsent(sheet.prompt(), x -> new ArrayList<>()).add(Integer.parseInt(sheet.rater()));
            }
        }
        return all;
    }

    private double[] leads() {
        double[] leads = new double[conditions.candidates()];
        switch (conditions.truth()) {
            case EQUAL -> {}
            case ONE_WORSE -> Arrays.fill(leads, 0, leads.length - 1, solved(Conditions.MARGIN));
            case TWO_AHEAD -> Arrays.fill(leads, 0, 2, solved(Conditions.MARGIN));
            case ONE_FAR_AHEAD -> leads[0] = solved(FAR_AHEAD);
            case ONE_AHEAD -> leads[0] = solved(Conditions.MARGIN);
        }
        return leads;
    }

    /** The latent lead with which the expected score is so many points higher. */
    private double solved(double points) {
        double low = 0;
        double high = 120;
        for (int i = 0; i < 60; i++) {
            double middle = (low + high) / 2;
            if (expected(middle, 0) - expected(0, 0) < points) {
                low = middle;
            } else {
                high = middle;
            }
        }
        return (low + high) / 2;
    }

    private double expected(int candidate) {
        boolean favoured = candidate == 0 && conditions.raterSort() == Conditions.RaterSort.FAVOURING;
        return favoured
                ? (1 - FAVOURING) * expected(lead[candidate], candidate)
                        + FAVOURING * expected(lead[candidate] + FAVOUR, candidate)
                : expected(lead[candidate], candidate);
    }

    private double expected(double latentLead, int candidate) {
        return IntStream.range(0, conditions.kinds())
                .mapToDouble(k -> expectedOfKind(latentLead, candidate, k))
                .average()
                .orElseThrow();
    }

    private double expectedOfKind(double latentLead, int candidate, int kind) {
        double sd = Math.sqrt(PROMPT.variance()
                + candidatePrompt(candidate).variance()
                + rater().variance()
                + raterCandidate().variance()
                + noise().variance()
                + attempt().variance());
        double mean = conditions.latent().base() + KINDS[kind] + latentLead;
        double sum = 0;
        double below = 0;
        for (int level = 0; level <= THRESHOLDS.length; level++) {
            double upTo = level == THRESHOLDS.length ? 1 : normal((THRESHOLDS[level] - mean) / sd);
            sum += (upTo - below) * given(level);
            below = upTo;
        }
        return conditions.raterSort() == Conditions.RaterSort.CARELESS ? (1 - CARELESS) * sum + CARELESS * 50 : sum;
    }

    private static double normal(double z) {
        return 0.5 * Erf.erfc(-z / Math.sqrt(2));
    }

    /** The score of a level, as such raters give it. */
    private double given(int level) {
        int least = conditions.raterSort() == Conditions.RaterSort.ENDS_AVOIDED ? 1 : 0;
        return 25.0 * Math.min(THRESHOLDS.length - least, Math.max(least, level));
    }

    /** One study's scores. */
    List<ScoredCell> draw(RandomGenerator random) {
        return drawWhole(random).cells();
    }

    /**
     * One study.
     *
     * @param cells     scores
     * @param agreement alpha of each criterion, prompts being what is left out for its interval
     */
    record Drawn(List<ScoredCell> cells, List<KrippendorffAlpha> agreement) {}

    Drawn drawWhole(RandomGenerator random) {
        int n = conditions.candidates();
        double[][] raters = new double[conditions.raters()][];
        double[][][] views = new double[conditions.raters()][n][];
        for (int r = 0; r < raters.length; r++) {
            raters[r] = rater().draw(random);
            double favour = conditions.raterSort() == Conditions.RaterSort.FAVOURING && random.nextDouble() < FAVOURING
                    ? FAVOUR
                    : 0;
            for (int c = 0; c < n; c++) {
                double own = c == 0 ? favour : 0;
                views[r][c] = Arrays.stream(raterCandidate().draw(random))
                        .map(x -> x + own)
                        .toArray();
            }
        }
        List<ScoredCell> cells = new ArrayList<>();
        List<List<List<int[]>>> counts = new ArrayList<>();
        for (int k = 0; k < WEIGHTS.length; k++) {
            counts.add(new ArrayList<>());
        }
        plan.forEach((prompt, by) -> {
            counts.forEach(c -> c.add(new ArrayList<>()));
            double base = conditions.latent().base() + KINDS[Integer.parseInt(prompt.substring(1, 2))];
            double[] ofPrompt = PROMPT.draw(random);
            for (int c = 0; c < n; c++) {
                double[] ofCandidate = candidatePrompt(c).draw(random);
                double[][] attempts = new double[conditions.attempts()][];
                Arrays.setAll(attempts, a -> attempt().draw(random));
                int[][][] given = new int[attempts.length][WEIGHTS.length][THRESHOLDS.length + 1];
                for (int r : by) {
                    double score = 0;
                    boolean missing = random.nextDouble() < conditions.missing();
                    for (int a = 0; a < attempts.length; a++) {
                        double[] ofAttempt = attempts[a];
                        double[] rest = noise().draw(random);
                        for (int k = 0; k < WEIGHTS.length; k++) {
                            double latent = base
                                    + lead[c]
                                    + ofPrompt[k]
                                    + ofCandidate[k]
                                    + ofAttempt[k]
                                    + raters[r][k]
                                    + views[r][c][k]
                                    + rest[k];
                            double grade = graded(latent, random);
                            score += WEIGHTS[k] * grade / attempts.length;
                            given[a][k][(int) Math.round(grade / 25)] += missing ? 0 : 1;
                        }
                    }
                    if (!missing) {
                        cells.add(new ScoredCell("c" + c, prompt, "r" + r, score));
                    }
                }
                for (int[][] ofAttempt : given) {
                    for (int k = 0; k < WEIGHTS.length; k++) {
                        counts.get(k).get(counts.get(k).size() - 1).add(ofAttempt[k]);
                    }
                }
            }
        });
        return new Drawn(
                cells,
                counts.stream()
                        .map(c -> KrippendorffAlpha.ofCounts(THRESHOLDS.length + 1, c))
                        .toList());
    }

    private double graded(double latent, RandomGenerator random) {
        if (conditions.raterSort() == Conditions.RaterSort.GUESSING
                || conditions.raterSort() == Conditions.RaterSort.CARELESS && random.nextDouble() < CARELESS) {
            return 25.0 * random.nextInt(THRESHOLDS.length + 1);
        }
        return given((int) Arrays.stream(THRESHOLDS).filter(t -> latent > t).count());
    }
}
