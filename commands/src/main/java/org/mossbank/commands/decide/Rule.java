package org.mossbank.commands.decide;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.agreement.Coefficient;
import org.mossbank.core.decision.Allowance;
import org.mossbank.core.decision.DecisionRule;

/**
 * A decision rule as its file has it; what is left out has a value of its own.
 *
 * @param margin        points of 100; 5
 * @param minimumRaters least raters an answer; 1
 * @param floorOn       what must reach a criterion's floor; the estimate
 * @param coefficient   of agreement; Krippendorff's alpha
 * @param byKind        whether kinds are told apart where nothing holds over all; not
 * @param looks         shares of the planned prompts at each look so far, the present one last; one look, at the end
 * @param failedAnswers what answers that failed count for; the lowest levels
 * @param criteria      empty where the grades are scores already
 */
record Rule(
        @Nullable Double margin,
        @Nullable Integer minimumRaters,
        DecisionRule.@Nullable FloorOn floorOn,
        @Nullable Coefficient coefficient,
        @Nullable Boolean byKind,
        @Nullable List<Double> looks,
        @Nullable FailedAnswers failedAnswers,
        @Nullable List<Criterion> criteria) {

    /**
     * @param key     as in the grades
     * @param weight  at least 0
     * @param highest highest level; levels begin at 0
     * @param floor   least agreement; none without it
     */
    record Criterion(
            String key,
            double weight,
            int highest,
            @Nullable Double floor) {}

    /** What an answer that was refused, failed or timed out counts for. */
    enum FailedAnswers {
        LOWEST,
        LEFT_OUT
    }

    private static final double USUAL_MARGIN = 5;

    boolean countsFailures() {
        return failedAnswers != FailedAnswers.LEFT_OUT;
    }

    private Allowance allowance() {
        Allowance whole = Boolean.TRUE.equals(byKind) ? Allowance.WITH_KINDS : Allowance.OVERALL;
        return looks == null || looks.isEmpty() ? whole : whole.at(looks);
    }

    DecisionRule decisionRule() {
        return new DecisionRule(
                floorOn == null ? DecisionRule.FloorOn.ESTIMATE : floorOn,
                margin == null ? USUAL_MARGIN : margin,
                minimumRaters == null ? 1 : minimumRaters,
                DecisionRule.TieBreak.NONE,
                DecisionRule.Strictness.LENIENT,
                allowance());
    }

    List<Criterion> all() {
        return criteria == null ? List.of() : criteria;
    }

    boolean isByAlpha() {
        return coefficient != Coefficient.AC2_ORDINAL;
    }
}
