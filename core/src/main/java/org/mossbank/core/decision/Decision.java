package org.mossbank.core.decision;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.mossbank.core.comparison.Difference;
import org.mossbank.core.comparison.Standing;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;

/**
 * What the decision rule yields.
 *
 * @param outcome  which of the outcomes
 * @param leader   the candidate that the outcome rests on: the highest standing, or among equals the one that the
 *                 tie-break prefers
 * @param findings the reasons, most weighty first; never empty
 */
public record Decision(Outcome outcome, Optional<String> leader, List<Finding> findings) {
    public Decision {
        findings = List.copyOf(findings);
    }

    /**
     * Applies the rule. A recommendation is withheld for any gap in the data or the agreement, all of them named. One
     * candidate is recommended if the lower limit of its difference to every other, at the level that Holm's correction
     * over all pairs leaves, is above 0, and the difference is at least the margin. All are equal if every such interval
     * lies within the margin either way; then the tie-break prefers one.
     */
    public static Decision of(DecisionRule rule, Evidence evidence) {
        List<Finding> gaps = gaps(rule, evidence);
        if (!gaps.isEmpty()) {
            return new Decision(Outcome.WITHHELD, Optional.empty(), gaps);
        }
        String leader = evidence.contending().get(0).candidate();
        List<Difference> differences = evidence.contendingDifferences();
        if (differences.stream().allMatch(d -> within(d, rule.margin()))) {
            return equal(rule, evidence, differences);
        }
        List<Finding> findings = differences.stream()
                .filter(d -> d.higher().equals(leader))
                .map(d -> against(d, rule.margin()))
                .toList();
        boolean clear = findings.stream().allMatch(f -> f instanceof Finding.ClearlyAhead);
        return new Decision(clear ? Outcome.RECOMMENDED : Outcome.UNDECIDED, Optional.of(leader), findings);
    }

    private static Decision equal(DecisionRule rule, Evidence evidence, List<Difference> differences) {
        List<Finding> findings = new ArrayList<>();
        Optional<Evidence.Contender> preferred =
                rule.tieBreak() == DecisionRule.TieBreak.NONE ? Optional.empty() : least(evidence.contenders());
        if (rule.tieBreak() != DecisionRule.TieBreak.NONE) {
            findings.add(preferred
                    .<Finding>map(c -> new Finding.TieBroken(
                            c.candidate(), rule.tieBreak(), c.tieBreakValue().orElseThrow()))
                    .orElse(new Finding.TieStands(rule.tieBreak())));
        }
        differences.forEach(d -> findings.add(new Finding.WithinMargin(d, rule.margin())));
        return new Decision(Outcome.EQUAL, preferred.map(Evidence.Contender::candidate), findings);
    }

    /** The contender with the least value; empty if one is not known or two share the least. */
    private static Optional<Evidence.Contender> least(List<Evidence.Contender> contenders) {
        if (contenders.stream().anyMatch(c -> c.tieBreakValue().isEmpty())) {
            return Optional.empty();
        }
        List<Evidence.Contender> sorted = contenders.stream()
                .sorted(Comparator.comparingDouble(c -> c.tieBreakValue().orElseThrow()))
                .toList();
        return sorted.get(0).tieBreakValue().equals(sorted.get(1).tieBreakValue())
                ? Optional.empty()
                : Optional.of(sorted.get(0));
    }

    private static List<Finding> gaps(DecisionRule rule, Evidence evidence) {
        List<Finding> gaps = new ArrayList<>();
        if (!evidence.state().briefClosed()) {
            gaps.add(new Finding.BriefOpen());
        }
        tooFewRaters(rule, evidence).ifPresent(gaps::add);
        evidence.agreement().stream()
                .flatMap(a -> agreementGap(rule, a).stream())
                .forEach(gaps::add);
        if (rule.strictness().onMasking() && evidence.state().giveAways() > 0) {
            gaps.add(new Finding.MaskingBroken(evidence.state().giveAways()));
        }
        if (rule.strictness().onSplits() && evidence.state().openSplits() > 0) {
            gaps.add(new Finding.SplitsOpen(evidence.state().openSplits()));
        }
        standingsGap(evidence).ifPresent(gaps::add);
        return gaps;
    }

    private static Optional<Finding> tooFewRaters(DecisionRule rule, Evidence evidence) {
        long few = evidence.answers().stream()
                .filter(a -> a.raters() < rule.minimumRaters())
                .count();
        int fewest = evidence.answers().stream()
                .mapToInt(Evidence.AnswerRaters::raters)
                .min()
                .orElse(0);
        return few == 0 && !evidence.answers().isEmpty()
                ? Optional.empty()
                : Optional.of(
                        new Finding.TooFewRaters((int) few, evidence.answers().size(), fewest, rule.minimumRaters()));
    }

    private static Optional<Finding> agreementGap(DecisionRule rule, Evidence.CriterionAgreement agreement) {
        if (agreement.coefficient() instanceof Estimate.Undefined none) {
            return Optional.of(new Finding.AgreementUndefined(agreement.criterion(), none.reason()));
        }
        double value = agreement.coefficient().value().orElseThrow();
        if (rule.floorOn() == DecisionRule.FloorOn.LOWER_LIMIT) {
            if (agreement.interval() instanceof Interval.Undefined none) {
                return Optional.of(new Finding.AgreementUndefined(agreement.criterion(), none.reason()));
            }
            value = ((Interval.Bounds) agreement.interval()).low();
        }
        return value < agreement.floor()
                ? Optional.of(new Finding.AgreementBelowFloor(
                        agreement.criterion(), rule.floorOn(), value, agreement.floor(), agreement.floor() - value))
                : Optional.empty();
    }

    private static Optional<Finding> standingsGap(Evidence evidence) {
        List<Standing> standings = evidence.contending();
        if (standings.size() < 2) {
            return Optional.of(new Finding.TooFewCandidates(standings.size()));
        }
        Stream<Finding> undefinedMeans = standings.stream()
                .map(Standing::adjusted)
                .filter(Estimate.Undefined.class::isInstance)
                .map(e -> new Finding.StandingsUndefined(((Estimate.Undefined) e).reason()));
        Stream<Finding> undefinedIntervals = evidence.contendingDifferences().stream()
                .map(Difference::adjustedInterval)
                .filter(Interval.Undefined.class::isInstance)
                .map(i -> new Finding.StandingsUndefined(((Interval.Undefined) i).reason()));
        return Stream.concat(undefinedMeans, undefinedIntervals).findFirst();
    }

    private static boolean within(Difference difference, double margin) {
        Interval.Bounds bounds = bounds(difference);
        return bounds.low() >= -margin && bounds.high() <= margin;
    }

    private static Finding against(Difference difference, double margin) {
        if (bounds(difference).low() <= 0) {
            return new Finding.NotSeparated(difference);
        }
        return difference.estimate().value().orElseThrow() < margin
                ? new Finding.BelowMargin(difference, margin)
                : new Finding.ClearlyAhead(difference);
    }

    /** Defined, because gaps were ruled out before. */
    private static Interval.Bounds bounds(Difference difference) {
        return (Interval.Bounds) difference.adjustedInterval();
    }
}
