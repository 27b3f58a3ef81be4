package org.mossbank.core.planning;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.random.RandomGenerator;
import org.mossbank.core.agreement.KrippendorffAlpha;
import org.mossbank.core.agreement.Metric;
import org.mossbank.core.assignment.SheetPlan;
import org.mossbank.core.comparison.PromptGroups;
import org.mossbank.core.comparison.ScoreGrid;
import org.mossbank.core.comparison.ScoredCell;
import org.mossbank.core.decision.Evidence;

/**
 * Makes up the grades of a planned study: every candidate on every prompt, by the raters of the plan that such a study would have.
 */
final class StudySimulation {
    private static final double LEVEL = 0.95;

    private final PlannedStudy study;
    private final GradingModel model;
    private final List<Integer> kindOfPrompt = new ArrayList<>();
    /** The raters of each prompt, as their positions among all, ascending. */
    private final List<int[]> ratersOf = new ArrayList<>();

    private final List<String> candidates = new ArrayList<>();
    /** Of the whole study, and of each kind. */
    private final ScoreGrid whole;

    private final List<ScoreGrid> kinds = new ArrayList<>();

    StudySimulation(PlannedStudy study, GradingModel model) {
        this.study = study;
        this.model = model;
        for (int c = 0; c < study.candidates(); c++) {
            candidates.add(candidate(c));
        }
        Map<String, List<Integer>> raters = new LinkedHashMap<>();
        study.sheets().stream()
                .sorted(java.util.Comparator.comparing(SheetPlan::prompt).thenComparing(SheetPlan::rater))
                .forEach(s -> raters.computeIfAbsent(s.prompt(), p -> new ArrayList<>())
                        .add(PlannedStudy.numberOf(s.rater())));
        List<ScoredCell> places = new ArrayList<>();
        raters.forEach((prompt, by) -> {
            kindOfPrompt.add(PlannedStudy.numberOfKind(prompt));
            ratersOf.add(by.stream().mapToInt(Integer::intValue).toArray());
            candidates.forEach(c -> by.forEach(r -> places.add(new ScoredCell(c, prompt, PlannedStudy.rater(r), 0))));
        });
        PromptGroups groups = PromptGroups.byKind(PlannedStudy::kindOf);
        whole = ScoreGrid.of(places, groups);
        for (int k = 0; k < study.promptsByKind().size(); k++) {
            int kind = k;
            kinds.add(ScoreGrid.of(
                    places.stream()
                            .filter(p -> PlannedStudy.numberOfKind(p.prompt()) == kind)
                            .toList(),
                    groups));
        }
    }

    static String candidate(int index) {
        return String.format("c%03d", index);
    }

    List<String> candidates() {
        return candidates;
    }

    /**
     * What one made-up study gives.
     *
     * @param whole     the mean score over attempts of each candidate at each place
     * @param kinds     the same within each kind
     * @param agreement on each criterion, with the floor that is asked of it
     */
    record Grades(ScoreGrid whole, List<ScoreGrid> kinds, List<Evidence.CriterionAgreement> agreement) {}

    /** @param leads latent, of each candidate */
    Grades draw(double[] leads, double floor, RandomGenerator random) {
        Drawing drawing = new Drawing(leads, random);
        List<ScoreGrid> byKind = new ArrayList<>();
        int from = 0;
        for (int k = 0; k < kinds.size(); k++) {
            int places = kinds.get(k).places();
            double[][] part = new double[leads.length][places];
            for (int c = 0; c < leads.length; c++) {
                System.arraycopy(drawing.scores[c], from, part[c], 0, places);
            }
            byKind.add(kinds.get(k).with(part));
            from += places;
        }
        List<Evidence.CriterionAgreement> agreement = new ArrayList<>();
        for (int criterion = 0; criterion < GradingModel.CRITERIA; criterion++) {
            KrippendorffAlpha alpha = KrippendorffAlpha.ofCounts(GradingModel.LEVELS, drawing.counts.get(criterion));
            agreement.add(new Evidence.CriterionAgreement(
                    "criterion " + criterion,
                    alpha.value(Metric.ORDINAL),
                    alpha.interval(Metric.ORDINAL, LEVEL),
                    floor));
        }
        return new Grades(whole.with(drawing.scores), byKind, agreement);
    }

    /** Draws effects and grades, prompt by prompt; kinds follow each other, as they do in the grids. */
    private final class Drawing {
        private final double[] leads;
        private final RandomGenerator random;
        private final double[][] scores;
        private final List<List<List<int[]>>> counts = new ArrayList<>();
        private final double[][] raters;
        private final double[][][] views;

        Drawing(double[] leads, RandomGenerator random) {
            this.leads = leads;
            this.random = random;
            scores = new double[leads.length][whole.places()];
            for (int k = 0; k < GradingModel.CRITERIA; k++) {
                counts.add(new ArrayList<>());
            }
            raters = new double[study.raters()][GradingModel.CRITERIA];
            views = new double[study.raters()][leads.length][GradingModel.CRITERIA];
            for (int r = 0; r < study.raters(); r++) {
                model.rater().addTo(raters[r], random);
                for (double[] view : views[r]) {
                    model.raterCandidate().addTo(view, random);
                }
            }
            int place = 0;
            for (int p = 0; p < ratersOf.size(); p++) {
                prompt(p, place);
                place += ratersOf.get(p).length;
            }
        }

        private void prompt(int p, int place) {
            counts.forEach(c -> c.add(new ArrayList<>()));
            double[] ofPrompt = new double[GradingModel.CRITERIA];
            model.prompt().addTo(ofPrompt, random);
            for (int c = 0; c < leads.length; c++) {
                double[] ofCandidate = ofPrompt.clone();
                model.candidatePrompt().addTo(ofCandidate, random);
                for (int a = 0; a < study.attempts(); a++) {
                    double[] ofAttempt = ofCandidate.clone();
                    model.attempt().addTo(ofAttempt, random);
                    answer(p, place, c, ofAttempt);
                }
            }
        }

        private void answer(int p, int place, int candidate, double[] effects) {
            int[] by = ratersOf.get(p);
            int[][] given = new int[GradingModel.CRITERIA][GradingModel.LEVELS];
            int[] levels = new int[GradingModel.CRITERIA];
            double[] latent = new double[GradingModel.CRITERIA];
            for (int i = 0; i < by.length; i++) {
                for (int k = 0; k < latent.length; k++) {
                    latent[k] = model.ofKind(kindOfPrompt.get(p))
                            + leads[candidate]
                            + effects[k]
                            + raters[by[i]][k]
                            + views[by[i]][candidate][k];
                }
                model.noise().addTo(latent, random);
                for (int k = 0; k < latent.length; k++) {
                    levels[k] = model.level(latent[k], random);
                    given[k][levels[k]]++;
                }
                scores[candidate][place + i] += GradingModel.score(levels) / study.attempts();
            }
            for (int k = 0; k < given.length; k++) {
                List<List<int[]>> prompts = counts.get(k);
                prompts.get(prompts.size() - 1).add(given[k]);
            }
        }
    }
}
