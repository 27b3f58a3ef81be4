package org.mossbank.core.planning;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.random.RandomGenerator;
import java.util.random.RandomGenerator.SplittableGenerator;
import org.mossbank.core.comparison.Difference;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.decision.Decision;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.core.decision.Evidence;
import org.mossbank.core.decision.Outcome;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.estimate.Resamples;

/**
 * What a planned study could show, before it is begun: studies are made up ({@link GradingModel}) in which one candidate stands
 * above the others, who are equal, by 0, 1, 2 and 3 margins, and the rule itself decides each of them, withholding included.
 *
 * <p>A chance from n studies is right to \( \sqrt{p (1 - p) / n} \), in chances: 1.6 points of 100 at most with 1,000 studies.
 * Agreement is on each of three criteria, each held against the same floor.
 *
 * @param halfWidth    mean half width of the 95 % interval for a difference with no lead, in points, of studies that are not withheld
 *                     for something else; undefined if none has intervals
 * @param leads        by true lead, ascending
 * @param smallestLead the true lead in points that is recommended in 80 % of studies, between the simulated leads by straight
 *                     lines in the normal quantile of the chance; empty if it is above {@link #MOST_LEAD}
 */
public record Forecast(Estimate halfWidth, List<AtLead> leads, OptionalDouble smallestLead) {
    private static final double LEVEL = 0.95;
    /** How often a lead must be found to count as found. */
    private static final double FOUND = 0.8;
    /** No candidate is further ahead of others that are worth a study. */
    static final double MOST_LEAD = 40;

    private static final int MOST_MARGINS = 3;

    public Forecast {
        leads = List.copyOf(leads);
    }

    /**
     * Chances of the outcomes at one true lead.
     *
     * @param margins the lead in margins
     * @param points  the same in points
     * @param chances of each outcome, in [0, 1]; together 1
     * @param wrong   chance that a candidate is recommended who is not ahead
     */
    public record AtLead(double margins, double points, Map<Outcome, Double> chances, double wrong) {
        public AtLead {
            chances = Map.copyOf(chances);
        }

        public double chance(Outcome outcome) {
            return chances.getOrDefault(outcome, 0.0);
        }

        /** That the one ahead is recommended; where none is, that any is. */
        double found() {
            return chance(Outcome.RECOMMENDED) - (points > 0 ? wrong : 0);
        }
    }

    /**
     * How raters grade, and what the rule asks of their agreement.
     *
     * @param floor of each criterion
     */
    public record Terms(GradingModel model, DecisionRule rule, double floor) {
        /** @throws IllegalArgumentException if the floor lies outside [-1, 1] */
        public Terms {
            Require.that(floor >= -1 && floor <= 1, "floor", "must lie in [-1, 1]", floor);
        }
    }

    /**
     * @param studies at each lead, at least 10; 1,000 for a plan, 100 for a first look
     * @throws IllegalArgumentException if the rule's margin is not above 0 or above 40
     */
    public static Forecast of(PlannedStudy study, Terms terms, int studies, SplittableGenerator random) {
        double margin = terms.rule().margin();
        Require.that(margin > 0 && margin <= MOST_LEAD, "margin", "must lie in (0, 40]", margin);
        Require.atLeast("studies", 10, studies);
        StudySimulation simulation = new StudySimulation(study, terms.model());
        List<AtLead> leads = new ArrayList<>();
        Estimate width = Estimate.undefined(Reason.TOO_FEW_TO_RESAMPLE);
        for (int m = 0; m <= MOST_MARGINS; m++) {
            List<Made> made = made(simulation, study, terms, m * margin, studies, random);
            if (m == 0) {
                width = halfWidth(made);
            }
            leads.add(atLead(m, margin, made));
        }
        List<AtLead> searched = new ArrayList<>(leads);
        for (double m = 2.0 * MOST_MARGINS;
                last(searched).found() < FOUND && last(searched).points() < MOST_LEAD;
                m *= 2) {
            double points = Math.min(MOST_LEAD, m * margin);
            searched.add(atLead(
                    points / margin,
                    margin,
                    made(simulation, study, terms, points, Math.max(10, studies / 2), random)));
        }
        return new Forecast(width, leads, smallest(searched));
    }

    /** The chances of the outcomes at one true lead alone. */
    static AtLead at(PlannedStudy study, Terms terms, double margins, int studies, SplittableGenerator random) {
        double margin = terms.rule().margin();
        StudySimulation simulation = new StudySimulation(study, terms.model());
        return atLead(margins, margin, made(simulation, study, terms, margins * margin, studies, random));
    }

    private static AtLead last(List<AtLead> leads) {
        return leads.get(leads.size() - 1);
    }

    /** What came of one study. */
    private record Made(Outcome outcome, boolean wrong, OptionalDouble halfWidth) {}

    private static List<Made> made(
            StudySimulation simulation,
            PlannedStudy study,
            Terms terms,
            double points,
            int studies,
            SplittableGenerator random) {
        double[] leads = new double[study.candidates()];
        leads[0] = points == 0
                ? 0
                : terms.model().leadFor(points, study.promptsByKind().size());
        return Resamples.drawAll(studies, random.split(), child -> made(simulation, study, terms, leads, child));
    }

    private static Made made(
            StudySimulation simulation, PlannedStudy study, Terms terms, double[] leads, RandomGenerator random) {
        StudySimulation.Grades grades = simulation.draw(leads, terms.floor(), random);
        Evidence bare = new Evidence(
                Evidence.State.CLEAR,
                List.of(new Evidence.AnswerRaters("each", study.ratersAnAnswer())),
                grades.agreement(),
                new Standings(List.of(), List.of()),
                simulation.candidates().stream()
                        .map(c -> new Evidence.Contender(c, OptionalDouble.empty()))
                        .toList());
        if (Decision.isWithheldWhateverTheScores(terms.rule(), bare)) {
            return new Made(Outcome.WITHHELD, false, OptionalDouble.empty());
        }
        Standings standings = standings(grades.whole());
        Evidence evidence = new Evidence(
                bare.state(),
                bare.answers(),
                bare.agreement(),
                standings,
                bare.contenders(),
                terms.rule().allowance().kinds() == 0 ? List.of() : withinKinds(grades));
        Decision decision = Decision.of(terms.rule(), evidence);
        boolean wrong = decision.outcome() == Outcome.RECOMMENDED
                && (leads[0] == 0 || !decision.isBest(StudySimulation.candidate(0)));
        return new Made(decision.outcome(), wrong, halfWidth(standings));
    }

    private static List<Evidence.WithinKind> withinKinds(StudySimulation.Grades grades) {
        List<Evidence.WithinKind> kinds = new ArrayList<>();
        for (int k = 0; k < grades.kinds().size(); k++) {
            kinds.add(new Evidence.WithinKind(
                    "kind " + k, standings(grades.kinds().get(k))));
        }
        return kinds;
    }

    private static Standings standings(org.mossbank.core.comparison.ScoreGrid grid) {
        return Standings.forDeciding(grid, LEVEL);
    }

    private static OptionalDouble halfWidth(Standings standings) {
        return standings.differences().stream()
                .map(Difference::interval)
                .filter(Interval.Bounds.class::isInstance)
                .map(Interval.Bounds.class::cast)
                .mapToDouble(b -> (b.high() - b.low()) / 2)
                .average();
    }

    private static Estimate halfWidth(List<Made> made) {
        OptionalDouble mean = made.stream()
                .map(Made::halfWidth)
                .filter(OptionalDouble::isPresent)
                .mapToDouble(OptionalDouble::getAsDouble)
                .average();
        return mean.isPresent() ? Estimate.of(mean.getAsDouble()) : Estimate.undefined(Reason.TOO_FEW_TO_RESAMPLE);
    }

    private static AtLead atLead(double margins, double margin, List<Made> made) {
        Map<Outcome, Double> chances = new EnumMap<>(Outcome.class);
        made.forEach(m -> chances.merge(m.outcome(), 1.0 / made.size(), Double::sum));
        double wrong = made.stream().filter(Made::wrong).count() / (double) made.size();
        return new AtLead(margins, margins * margin, chances, wrong);
    }

    private static OptionalDouble smallest(List<AtLead> leads) {
        for (int i = 1; i < leads.size(); i++) {
            AtLead above = leads.get(i);
            if (above.found() >= FOUND) {
                AtLead below = leads.get(i - 1);
                double from = quantile(below.found());
                double to = quantile(above.found());
                double share = to == from ? 1 : (quantile(FOUND) - from) / (to - from);
                return OptionalDouble.of(below.points() + share * (above.points() - below.points()));
            }
        }
        return OptionalDouble.empty();
    }

    /** Of the normal distribution, kept away from chances that no simulation can tell from 0 or 1. */
    private static double quantile(double chance) {
        double kept = Math.min(0.999, Math.max(0.001, chance));
        return new org.hipparchus.distribution.continuous.NormalDistribution().inverseCumulativeProbability(kept);
    }
}
