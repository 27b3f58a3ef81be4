package org.mossbank.core.decision;

import org.mossbank.core.comparison.Difference;
import org.mossbank.core.estimate.Reason;

/** One reason for an outcome, as data, so that screen, memo and interface say the same. */
public sealed interface Finding {

    /** The brief, and with it the rule, is open. */
    record BriefOpen() implements Finding {}

    /** Some answers have fewer raters than the rule asks for. */
    record TooFewRaters(int answers, int ofAnswers, int fewest, int minimum) implements Finding {}

    /** There is nothing to compare: fewer than two candidates that may be recommended have grades. */
    record TooFewCandidates(int candidates) implements Finding {}

    /** Agreement on a criterion, or its lower limit, lies below the floor, by {@code shortfall}. */
    record AgreementBelowFloor(String criterion, DecisionRule.FloorOn on, double value, double floor, double shortfall)
            implements Finding {}

    /** Agreement on a criterion, or its interval, cannot be computed. */
    record AgreementUndefined(String criterion, Reason reason) implements Finding {}

    /** Answers give their candidate away, and the rule is strict about it. */
    record MaskingBroken(int answers) implements Finding {}

    /** Splits have no settled grade, and the rule is strict about it. */
    record SplitsOpen(int splits) implements Finding {}

    /** Standings cannot be computed. */
    record StandingsUndefined(Reason reason) implements Finding {}

    /** The leader is ahead of this candidate beyond doubt and by the margin. */
    record ClearlyAhead(Difference difference) implements Finding {}

    /** The leader is ahead, but the interval does not exclude that it is behind. */
    record NotSeparated(Difference difference) implements Finding {}

    /** The leader is ahead beyond doubt, but by less than the margin. */
    record BelowMargin(Difference difference, double margin) implements Finding {}

    /** The difference is smaller than the margin either way. */
    record WithinMargin(Difference difference, double margin) implements Finding {}

    /** Among equals, this one has the least of what the tie-break compares. */
    record TieBroken(String candidate, DecisionRule.TieBreak by, double value) implements Finding {}

    /** Candidates are equal, and the tie-break does not tell them apart. */
    record TieStands(DecisionRule.TieBreak by) implements Finding {}
}
