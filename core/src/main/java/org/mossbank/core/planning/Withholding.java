package org.mossbank.core.planning;

import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.random.RandomGenerator.SplittableGenerator;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.decision.Decision;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.core.decision.DecisionRule.FloorOn;
import org.mossbank.core.decision.Evidence;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.estimate.Resamples;

/**
 * How often each reading of the floor of agreement withholds a study of some size, whose raters are good, middling or guess: by
 * simulation ({@link GradingModel}), so that whoever chooses one knows what it does. Shares of studies, in [0, 1].
 */
public final class Withholding {
    private Withholding() {}

    /**
     * @param rule    all but what must reach the floor
     * @param floor   of each criterion
     * @param studies simulated, at least 10
     */
    public static Map<FloorOn, Double> of(
            PlannedStudy study,
            GradingModel model,
            DecisionRule rule,
            double floor,
            int studies,
            SplittableGenerator random) {
        Require.atLeast("studies", 10, studies);
        StudySimulation simulation = new StudySimulation(study, model);
        double[] equal = new double[study.candidates()];
        List<List<Evidence.CriterionAgreement>> agreement = Resamples.drawAll(
                studies, random, child -> simulation.draw(equal, floor, child).agreement());
        Map<FloorOn, Double> shares = new EnumMap<>(FloorOn.class);
        for (FloorOn reading : FloorOn.values()) {
            DecisionRule read = new DecisionRule(
                    reading, rule.margin(), rule.minimumRaters(), rule.tieBreak(), rule.strictness(), rule.allowance());
            long withheld = agreement.stream()
                    .filter(a -> Decision.isWithheldWhateverTheScores(read, evidence(study, a)))
                    .count();
            shares.put(reading, withheld / (double) studies);
        }
        return shares;
    }

    private static Evidence evidence(PlannedStudy study, List<Evidence.CriterionAgreement> agreement) {
        return new Evidence(
                Evidence.State.CLEAR,
                List.of(new Evidence.AnswerRaters("each", study.ratersAnAnswer())),
                agreement,
                new Standings(List.of(), List.of()),
                List.of(new Evidence.Contender("any", OptionalDouble.empty())));
    }
}
