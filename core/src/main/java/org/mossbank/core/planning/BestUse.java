package org.mossbank.core.planning;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.random.RandomGenerator.SplittableGenerator;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.core.decision.Outcome;
import org.mossbank.core.estimate.Require;

/**
 * What to do with so many hours of grading: few prompts that many grade, or many prompts that few do, once or twice.
 *
 * <p>For each number of raters an answer, and of attempts, as many prompts of each kind as the hours allow; then how often a lead
 * of two margins is found. An answer that one rater grades tells nothing about agreement. Where a way has fewer raters an answer than the rule asks
 * for, the rule is taken to ask for as many as there are.
 */
public final class BestUse {
    private static final double MARGINS = 2;
    private static final int MINUTES_AN_HOUR = 60;
    private static final int MOST_ATTEMPTS = 2;

    private BestUse() {}

    /**
     * What there is to be spent.
     *
     * @param hours      of grading in all, above 0
     * @param minutes    that one answer takes one rater, above 0
     * @param candidates at least 2
     * @param raters     at least 2
     * @param kinds      of prompts, at least 1
     */
    public record Means(double hours, double minutes, int candidates, int raters, int kinds) {
        /** @throws IllegalArgumentException if a number is out of its range */
        public Means {
            Require.that(hours > 0, "hours", "must be above 0", hours);
            Require.that(minutes > 0, "minutes", "must be above 0", minutes);
            Require.atLeast("candidates", 2, candidates);
            Require.atLeast("raters", 2, raters);
            Require.atLeast("kinds", 1, kinds);
        }

        private int promptsAKind(int ratersAnAnswer, int attempts) {
            double gradings = hours * MINUTES_AN_HOUR / minutes;
            return (int) Math.floor(gradings / candidates / kinds / ratersAnAnswer / attempts + 1e-9);
        }
    }

    /**
     * One way to spend it.
     *
     * @param study    its size
     * @param hours    of grading that it takes
     * @param found    chance that a lead of two margins is recommended
     * @param withheld chance that nothing is, for lack of agreement
     */
    public record Way(PlannedStudy study, double hours, double found, double withheld) {}

    /**
     * @param mostPrompts   in all; more are not asked of anybody
     * @param mostAnAnswer  raters an answer, at most
     * @param studies       simulated for each way
     * @return the ways there are, best first; empty if the hours allow none
     */
    public static List<Way> of(
            Means means,
            Forecast.Terms terms,
            int mostPrompts,
            int mostAnAnswer,
            int studies,
            SplittableGenerator random) {
        List<Way> ways = new ArrayList<>();
        for (int each = 1; each <= Math.min(means.raters, mostAnAnswer); each++) {
            for (int attempts = 1; attempts <= MOST_ATTEMPTS; attempts++) {
                int prompts = Math.min(means.promptsAKind(each, attempts), mostPrompts / means.kinds);
                if (prompts >= 1) {
                    PlannedStudy study = new PlannedStudy(
                            Collections.nCopies(means.kinds, prompts), means.candidates, attempts, means.raters, each);
                    ways.add(way(study, means, terms, studies, random));
                }
            }
        }
        ways.sort(java.util.Comparator.comparingDouble(Way::found).reversed());
        return List.copyOf(ways);
    }

    private static Way way(
            PlannedStudy study, Means means, Forecast.Terms terms, int studies, SplittableGenerator random) {
        // What a rule that asks for more raters would find with fewer is what a lead wants to know here.
        DecisionRule rule = terms.rule();
        DecisionRule asking = new DecisionRule(
                rule.floorOn(),
                rule.margin(),
                Math.min(rule.minimumRaters(), study.ratersAnAnswer()),
                rule.tieBreak(),
                rule.strictness(),
                rule.allowance());
        Forecast.AtLead at =
                Forecast.at(study, new Forecast.Terms(terms.model(), asking, terms.floor()), MARGINS, studies, random);
        return new Way(
                study, study.gradings() * means.minutes / MINUTES_AN_HOUR, at.found(), at.chance(Outcome.WITHHELD));
    }
}
