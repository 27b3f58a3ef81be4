package org.mossbank.core.planning;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.random.RandomGenerator;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.mossbank.core.assignment.SheetPlan;
import org.mossbank.core.comparison.ScoredCell;
import org.mossbank.core.estimate.Require;

/**
 * Makes up the scores of a study: score = truth + prompt + rater + candidate × prompt + candidate × rater + attempt + rest,
 * each normal, rounded to the steps that three criteria of five levels can give, within 0 and 100.
 */
final class StudySimulation {
    /** Three criteria with levels 0 … 4 and equal weights: 12 steps. */
    private static final double STEP = 100 / 12.0;

    private final PlannedStudy study;
    private final Spread spread;
    private final List<SheetPlan> sheets;
    private final List<String> names;
    private final Map<String, Long> sheetsByPrompt;

    StudySimulation(PlannedStudy study, Spread spread) {
        this.study = study;
        this.spread = spread;
        this.sheets = study.sheets();
        this.sheetsByPrompt = sheets.stream().collect(Collectors.groupingBy(SheetPlan::prompt, Collectors.counting()));
        this.names = IntStream.range(0, study.candidates())
                .mapToObj(StudySimulation::candidate)
                .toList();
    }

    static String candidate(int index) {
        return String.format("c%03d", index);
    }

    /** @param truth the true score of each candidate */
    List<ScoredCell> cells(double[] truth, RandomGenerator random) {
        return cells(scores(truth, random));
    }

    private List<ScoredCell> cells(double[] scores) {
        List<ScoredCell> cells = new ArrayList<>();
        for (SheetPlan sheet : sheets) {
            for (int c = 0; c < names.size(); c++) {
                cells.add(new ScoredCell(names.get(c), sheet.prompt(), sheet.rater(), scores[cells.size()]));
            }
        }
        return cells;
    }

    /**
     * Scores by sheet, then candidate.
     *
     * @param truth the true score of each candidate
     */
    double[] scores(double[] truth, RandomGenerator random) {
        Map<String, double[]> prompts = new HashMap<>();
        Map<String, double[]> raters = new HashMap<>();
        double perAttempt = 1 / Math.sqrt(study.attempts());
        double[] scores = new double[sheets.size() * truth.length];
        int n = 0;
        for (SheetPlan sheet : sheets) {
            // The last entry is common to all candidates, the others are each candidate's own.
            double[] ofPrompt = prompts.computeIfAbsent(sheet.prompt(), p -> {
                double own = Math.hypot(spread.candidatePrompt(), spread.attempt() * perAttempt);
                return effects(truth.length, own, spread.prompt(), random);
            });
            double[] ofRater = raters.computeIfAbsent(
                    sheet.rater(), r -> effects(truth.length, spread.candidateRater(), spread.rater(), random));
            for (int c = 0; c < truth.length; c++) {
                double score = truth[c]
                        + ofPrompt[c]
                        + ofPrompt[truth.length]
                        + ofRater[c]
                        + ofRater[truth.length]
                        + spread.rest() * perAttempt * random.nextGaussian();
                double step = Math.rint(score / STEP) * STEP;
                scores[n++] = Math.min(100, Math.max(0, step));
            }
        }
        return scores;
    }

    /**
     * Each candidate's mean, every prompt weighing alike: all candidates stand on each sheet, so that what lies between two of
     * them is what the standings make of it.
     *
     * @param scores by sheet, then candidate
     */
    double[] means(double[] scores) {
        double[] means = new double[names.size()];
        for (int i = 0; i < scores.length; i++) {
            SheetPlan sheet = sheets.get(i / means.length);
            means[i % means.length] +=
                    scores[i] / Require.known(sheetsByPrompt, sheet.prompt()) / sheetsByPrompt.size();
        }
        return means;
    }

    private static double[] effects(int candidates, double own, double common, RandomGenerator random) {
        double[] effects = new double[candidates + 1];
        for (int c = 0; c < candidates; c++) {
            effects[c] = own * random.nextGaussian();
        }
        effects[candidates] = common * random.nextGaussian();
        return effects;
    }
}
