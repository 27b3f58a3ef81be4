package org.mossbank.core.decision;

import java.util.List;
import org.mossbank.core.comparison.Difference;
import org.mossbank.core.estimate.Reason;

/** One reason for an outcome, as data, so that screen, memo and interface say the same. */
public sealed interface Finding {

    /** What somebody makes of each sort of finding; whoever adds a sort is told by the compiler where it is missing. */
    interface Visitor<T> {
        T briefOpen(BriefOpen finding);

        T tooFewRaters(TooFewRaters finding);

        T tooFewCandidates(TooFewCandidates finding);

        T agreementBelowFloor(AgreementBelowFloor finding);

        T agreementMayBeChance(AgreementMayBeChance finding);

        T agreementUncertain(AgreementUncertain finding);

        T agreementUndefined(AgreementUndefined finding);

        T maskingBroken(MaskingBroken finding);

        T splitsOpen(SplitsOpen finding);

        T standingsUndefined(StandingsUndefined finding);

        T clearlyAhead(ClearlyAhead finding);

        T belowMargin(BelowMargin finding);

        T safe(Safe finding);

        T notSafe(NotSafe finding);

        T out(Out finding);

        T bestOfKind(BestOfKind finding);

        T safeInKind(SafeInKind finding);

        T kindsOpen(KindsOpen finding);

        T tieBroken(TieBroken finding);

        T tieStands(TieStands finding);
    }

    <T> T accept(Visitor<T> visitor);

    /** The brief, and with it the rule, is open. */
    record BriefOpen() implements Finding {
        @Override
        public <T> T accept(Visitor<T> visitor) {
            return visitor.briefOpen(this);
        }
    }

    /** Some answers have fewer raters than the rule asks for. */
    record TooFewRaters(int answers, int ofAnswers, int fewest, int minimum) implements Finding {
        @Override
        public <T> T accept(Visitor<T> visitor) {
            return visitor.tooFewRaters(this);
        }
    }

    /** There is nothing to compare: fewer than two candidates that may be recommended have grades. */
    record TooFewCandidates(int candidates) implements Finding {
        @Override
        public <T> T accept(Visitor<T> visitor) {
            return visitor.tooFewCandidates(this);
        }
    }

    /** Agreement on a criterion may be no more than chance: its lower limit is not above 0. */
    record AgreementMayBeChance(String criterion, double low) implements Finding {
        @Override
        public <T> T accept(Visitor<T> visitor) {
            return visitor.agreementMayBeChance(this);
        }
    }

    /** Agreement on a criterion may lie below the floor, and may reach it. */
    record AgreementUncertain(String criterion, double low, double high, double floor) implements Finding {
        @Override
        public <T> T accept(Visitor<T> visitor) {
            return visitor.agreementUncertain(this);
        }
    }

    /** Agreement on a criterion, or the limit that the rule looks at, lies below the floor, by {@code shortfall}. */
    record AgreementBelowFloor(String criterion, DecisionRule.FloorOn on, double value, double floor, double shortfall)
            implements Finding {
        @Override
        public <T> T accept(Visitor<T> visitor) {
            return visitor.agreementBelowFloor(this);
        }
    }

    /** Agreement on a criterion, or its interval, cannot be computed. */
    record AgreementUndefined(String criterion, Reason reason) implements Finding {
        @Override
        public <T> T accept(Visitor<T> visitor) {
            return visitor.agreementUndefined(this);
        }
    }

    /** Answers give their candidate away, and the rule is strict about it. */
    record MaskingBroken(int answers) implements Finding {
        @Override
        public <T> T accept(Visitor<T> visitor) {
            return visitor.maskingBroken(this);
        }
    }

    /** Splits have no settled grade, and the rule is strict about it. */
    record SplitsOpen(int splits) implements Finding {
        @Override
        public <T> T accept(Visitor<T> visitor) {
            return visitor.splitsOpen(this);
        }
    }

    /** Standings cannot be computed. */
    record StandingsUndefined(Reason reason) implements Finding {
        @Override
        public <T> T accept(Visitor<T> visitor) {
            return visitor.standingsUndefined(this);
        }
    }

    /** The leader is ahead of this candidate beyond doubt, and by as much as the margin for all that is known. */
    record ClearlyAhead(Difference difference) implements Finding {
        @Override
        public <T> T accept(Visitor<T> visitor) {
            return visitor.clearlyAhead(this);
        }
    }

    /** The leader is ahead beyond doubt, but by less than the margin at most. */
    record BelowMargin(Difference difference, double margin) implements Finding {
        @Override
        public <T> T accept(Visitor<T> visitor) {
            return visitor.belowMargin(this);
        }
    }

    /** At worst {@code shortfall} points below the best, which is less than the margin; below 0 it is above even then. */
    record Safe(String candidate, double shortfall, double margin) implements Finding {
        @Override
        public <T> T accept(Visitor<T> visitor) {
            return visitor.safe(this);
        }
    }

    /** It may be the best, and may as well be {@code shortfall} points below it, as much as the margin or more. */
    record NotSafe(String candidate, double shortfall, double margin) implements Finding {
        @Override
        public <T> T accept(Visitor<T> visitor) {
            return visitor.notSafe(this);
        }
    }

    /** It is not the best: another is above it beyond doubt. */
    record Out(String candidate, String by) implements Finding {
        @Override
        public <T> T accept(Visitor<T> visitor) {
            return visitor.out(this);
        }
    }

    /** Within a kind, this one is the best, beyond doubt. */
    record BestOfKind(String kind, String candidate) implements Finding {
        @Override
        public <T> T accept(Visitor<T> visitor) {
            return visitor.bestOfKind(this);
        }
    }

    /** Within a kind, this one is at worst {@code shortfall} points below the best, less than the margin. */
    record SafeInKind(String kind, String candidate, double shortfall, double margin) implements Finding {
        @Override
        public <T> T accept(Visitor<T> visitor) {
            return visitor.safeInKind(this);
        }
    }

    /** Within these kinds nobody is the best or safe. */
    record KindsOpen(List<String> kinds) implements Finding {
        public KindsOpen {
            kinds = List.copyOf(kinds);
        }

        @Override
        public <T> T accept(Visitor<T> visitor) {
            return visitor.kindsOpen(this);
        }
    }

    /** Among safe choices, this one has the least of what the tie-break compares; the next one has {@code next}. */
    record TieBroken(String candidate, DecisionRule.TieBreak by, double value, double next) implements Finding {
        @Override
        public <T> T accept(Visitor<T> visitor) {
            return visitor.tieBroken(this);
        }
    }

    /** Several choices are safe, and the tie-break does not tell them apart. */
    record TieStands(DecisionRule.TieBreak by) implements Finding {
        @Override
        public <T> T accept(Visitor<T> visitor) {
            return visitor.tieStands(this);
        }
    }
}
