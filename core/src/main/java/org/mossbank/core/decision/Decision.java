package org.mossbank.core.decision;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.mossbank.core.comparison.Difference;
import org.mossbank.core.comparison.Standing;
import org.mossbank.core.comparison.WithBest;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;

/**
 * What the decision rule yields.
 *
 * @param outcome  which of the outcomes
 * @param leader   the candidate that the outcome rests on: the best, the safe choice that the tie-break prefers, or while it is
 *                 undecided the highest standing
 * @param findings the reasons, most weighty first; never empty
 * @param field    what is said of each contender against the best; empty if nothing is recommended for lack of data
 */
public record Decision(Outcome outcome, Optional<String> leader, List<Finding> findings, Optional<WithBest> field) {
    /** Allowance of error for all statements together. */
    private static final double ALPHA = 0.05;

    public Decision {
        findings = List.copyOf(findings);
    }

    /**
     * Applies the rule. A recommendation is withheld for any gap in the data or the agreement, all of them named. One
     * candidate is recommended if it is the best, or the only one that is not out. Otherwise those are safe choices that are
     * at worst less than the margin below the best; the tie-break prefers one of several. Otherwise it is undecided between
     * those that are not out. See {@link WithBest} for what is the best, safe and out.
     */
    public static Decision of(DecisionRule rule, Evidence evidence) {
        List<Finding> gaps = gaps(rule, evidence);
        if (!gaps.isEmpty()) {
            return new Decision(Outcome.WITHHELD, Optional.empty(), gaps, Optional.empty());
        }
        Decision decision = amongContenders(rule, evidence);
        return new Decision(
                decision.outcome,
                decision.leader,
                Stream.concat(decision.findings.stream(), uncertain(rule, evidence).stream())
                        .toList(),
                decision.field);
    }

    private static Decision amongContenders(DecisionRule rule, Evidence evidence) {
        WithBest field = WithBest.of(
                evidence.contending().stream().map(Standing::candidate).toList(),
                evidence.contendingDifferences(),
                ALPHA);
        List<WithBest.Candidate> in =
                field.candidates().stream().filter(c -> !c.out()).toList();
        Optional<WithBest.Candidate> best =
                field.candidates().stream().filter(WithBest.Candidate::best).findFirst();
        if (best.isEmpty() && in.size() == 1) {
            best = Optional.of(in.get(0));
        }
        if (best.isPresent()) {
            return recommended(best.get().name(), rule, evidence, field);
        }
        List<WithBest.Candidate> safe =
                in.stream().filter(c -> c.isSafe(rule.margin())).toList();
        return safe.isEmpty() ? undecided(in, rule, field) : safe(safe, in, rule, evidence, field);
    }

    /** Whether a candidate is the one that is recommended. */
    public boolean isBest(String candidate) {
        return outcome == Outcome.RECOMMENDED
                && leader.filter(candidate::equals).isPresent();
    }

    private static Decision recommended(String best, DecisionRule rule, Evidence evidence, WithBest field) {
        List<Finding> findings = evidence.contendingDifferences().stream()
                .filter(d -> d.higher().equals(best) || d.lower().equals(best))
                .map(d -> ahead(d, rule.margin()))
                .toList();
        return new Decision(Outcome.RECOMMENDED, Optional.of(best), findings, Optional.of(field));
    }

    private static Finding ahead(Difference difference, double margin) {
        return ((Interval.Bounds) difference.interval()).high() < margin
                ? new Finding.BelowMargin(difference, margin)
                : new Finding.ClearlyAhead(difference);
    }

    private static Decision safe(
            List<WithBest.Candidate> safe,
            List<WithBest.Candidate> in,
            DecisionRule rule,
            Evidence evidence,
            WithBest field) {
        List<Finding> findings = new ArrayList<>();
        Optional<String> preferred = safe.size() == 1 ? Optional.of(safe.get(0).name()) : Optional.empty();
        if (safe.size() > 1 && rule.tieBreak() != DecisionRule.TieBreak.NONE) {
            Optional<Evidence.Contender> least = least(evidence.contenders().stream()
                    .filter(c -> safe.stream().anyMatch(s -> s.name().equals(c.candidate())))
                    .toList());
            findings.add(least.<Finding>map(c -> new Finding.TieBroken(
                            c.candidate(), rule.tieBreak(), c.tieBreakValue().orElseThrow()))
                    .orElse(new Finding.TieStands(rule.tieBreak())));
            preferred = least.map(Evidence.Contender::candidate);
        }
        findings.addAll(chances(in, rule.margin()));
        findings.addAll(outOf(field));
        return new Decision(Outcome.SAFE_CHOICES, preferred, findings, Optional.of(field));
    }

    private static Decision undecided(List<WithBest.Candidate> in, DecisionRule rule, WithBest field) {
        List<Finding> findings = new ArrayList<>(chances(in, rule.margin()));
        findings.addAll(outOf(field));
        return new Decision(
                Outcome.UNDECIDED, in.stream().map(WithBest.Candidate::name).findFirst(), findings, Optional.of(field));
    }

    /** How far each that may be the best may lie below it; safe ones first. */
    private static List<Finding> chances(List<WithBest.Candidate> in, double margin) {
        return Stream.concat(
                        in.stream()
                                .filter(c -> c.isSafe(margin))
                                .<Finding>map(c ->
                                        new Finding.Safe(c.name(), c.shortfall().orElseThrow(), margin)),
                        in.stream()
                                .filter(c -> !c.isSafe(margin))
                                .<Finding>map(c -> new Finding.NotSafe(
                                        c.name(), c.shortfall().orElseThrow(), margin)))
                .toList();
    }

    private static List<Finding> outOf(WithBest field) {
        return field.candidates().stream()
                .filter(WithBest.Candidate::out)
                .<Finding>map(c -> new Finding.Out(c.name(), c.outBy()))
                .toList();
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
        boolean allAlike = value >= 1;
        if (rule.floorOn() != DecisionRule.FloorOn.ESTIMATE && !allAlike) {
            if (agreement.interval() instanceof Interval.Undefined none) {
                return Optional.of(new Finding.AgreementUndefined(agreement.criterion(), none.reason()));
            }
            Interval.Bounds bounds = (Interval.Bounds) agreement.interval();
            if (rule.floorOn() == DecisionRule.FloorOn.UPPER_LIMIT && bounds.low() <= 0) {
                return Optional.of(new Finding.AgreementMayBeChance(agreement.criterion(), bounds.low()));
            }
            value = rule.floorOn() == DecisionRule.FloorOn.LOWER_LIMIT ? bounds.low() : bounds.high();
        }
        return value < agreement.floor()
                ? Optional.of(new Finding.AgreementBelowFloor(
                        agreement.criterion(), rule.floorOn(), value, agreement.floor(), agreement.floor() - value))
                : Optional.empty();
    }

    /** Where a rule lets agreement pass that may lie below its floor, it is told. */
    private static List<Finding> uncertain(DecisionRule rule, Evidence evidence) {
        if (rule.floorOn() != DecisionRule.FloorOn.UPPER_LIMIT) {
            return List.of();
        }
        return evidence.agreement().stream()
                .filter(a -> a.interval() instanceof Interval.Bounds b && b.low() < a.floor())
                .<Finding>map(a -> new Finding.AgreementUncertain(
                        a.criterion(),
                        ((Interval.Bounds) a.interval()).low(),
                        ((Interval.Bounds) a.interval()).high(),
                        a.floor()))
                .toList();
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
}
