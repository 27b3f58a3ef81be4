package org.mossbank.core.decision;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.mossbank.core.comparison.Difference;
import org.mossbank.core.comparison.Standing;
import org.mossbank.core.comparison.Standings;
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
    public Decision {
        findings = List.copyOf(findings);
    }

    /**
     * Applies the rule. A recommendation is withheld for any gap in the data or the agreement, all of them named. One
     * candidate is recommended if it is the best, or the only one that is not out. Otherwise those are safe choices that are
     * at worst less than the margin below the best; the tie-break prefers one of several. Otherwise it is undecided between
     * those that are not out, unless the rule lets kinds be told apart and there is a best or a safe choice within some. See {@link
     * WithBest} for what is the best, safe and out.
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
        WithBest field = field(evidence.standings(), evidence, rule.allowance().overall());
        List<WithBest.Candidate> in =
                field.candidates().stream().filter(c -> !c.out()).toList();
        Optional<String> best = best(field);
        if (best.isPresent()) {
            return recommended(best.get(), rule, evidence, field);
        }
        List<WithBest.Candidate> safe =
                in.stream().filter(c -> c.isSafe(rule.margin())).toList();
        if (!safe.isEmpty()) {
            return safe(safe, in, rule, evidence, field);
        }
        List<Finding> kinds = withinKinds(rule, evidence);
        return kinds.isEmpty() ? undecided(in, rule, field) : byKind(kinds, in, rule, field);
    }

    private static WithBest field(Standings standings, Evidence evidence, double alpha) {
        return WithBest.of(
                evidence.contending(standings).stream().map(Standing::candidate).toList(),
                evidence.contendingDifferences(standings),
                alpha);
    }

    /** The one above every other beyond doubt, or the only one that is not out. */
    private static Optional<String> best(WithBest field) {
        List<WithBest.Candidate> in =
                field.candidates().stream().filter(c -> !c.out()).toList();
        return field.candidates().stream()
                .filter(WithBest.Candidate::best)
                .findFirst()
                .or(() -> in.size() == 1 ? Optional.of(in.get(0)) : Optional.empty())
                .map(WithBest.Candidate::name);
    }

    /** What may be said within kinds; nothing where there is neither a best nor a safe choice in any. */
    private static List<Finding> withinKinds(DecisionRule rule, Evidence evidence) {
        if (rule.allowance().kinds() == 0 || evidence.kinds().size() < 2) {
            return List.of();
        }
        List<Finding> said = new ArrayList<>();
        List<String> open = new ArrayList<>();
        double alpha = rule.allowance().kinds() / evidence.kinds().size();
        for (Evidence.WithinKind kind : evidence.kinds()) {
            List<Finding> here = standingsGap(kind.standings(), evidence).isPresent()
                    ? List.of()
                    : within(kind.kind(), field(kind.standings(), evidence, alpha), rule.margin());
            if (here.isEmpty()) {
                open.add(kind.kind());
            }
            said.addAll(here);
        }
        if (!said.isEmpty() && !open.isEmpty()) {
            said.add(new Finding.KindsOpen(open));
        }
        return said;
    }

    private static List<Finding> within(String kind, WithBest field, double margin) {
        return best(field)
                .<List<Finding>>map(name -> List.of(new Finding.BestOfKind(kind, name)))
                .orElseGet(() -> field.candidates().stream()
                        .filter(c -> !c.out() && c.isSafe(margin))
                        .<Finding>map(c -> new Finding.SafeInKind(
                                kind, c.name(), c.shortfall().orElseThrow(), margin))
                        .toList());
    }

    private static Decision byKind(
            List<Finding> kinds, List<WithBest.Candidate> in, DecisionRule rule, WithBest field) {
        Decision overall = undecided(in, rule, field);
        return new Decision(
                Outcome.BY_KIND,
                Optional.empty(),
                Stream.concat(kinds.stream(), overall.findings.stream()).toList(),
                Optional.of(field));
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
            Optional<Finding.TieBroken> least = least(
                    evidence.contenders().stream()
                            .filter(c -> safe.stream().anyMatch(s -> s.name().equals(c.candidate())))
                            .toList(),
                    rule.tieBreak());
            findings.add(least.<Finding>map(t -> t).orElse(new Finding.TieStands(rule.tieBreak())));
            preferred = least.map(Finding.TieBroken::candidate);
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
    private static Optional<Finding.TieBroken> least(List<Evidence.Contender> contenders, DecisionRule.TieBreak by) {
        if (contenders.stream().anyMatch(c -> c.tieBreakValue().isEmpty())) {
            return Optional.empty();
        }
        List<Evidence.Contender> sorted = contenders.stream()
                .sorted(Comparator.comparingDouble(c -> c.tieBreakValue().orElseThrow()))
                .toList();
        double value = sorted.get(0).tieBreakValue().orElseThrow();
        double next = sorted.get(1).tieBreakValue().orElseThrow();
        return value == next
                ? Optional.empty()
                : Optional.of(new Finding.TieBroken(sorted.get(0).candidate(), by, value, next));
    }

    /** Whether the rule withholds a recommendation before it looks at any score. */
    public static boolean isWithheldWhateverTheScores(DecisionRule rule, Evidence evidence) {
        return !gapsBesideScores(rule, evidence).isEmpty();
    }

    private static List<Finding> gaps(DecisionRule rule, Evidence evidence) {
        List<Finding> gaps = gapsBesideScores(rule, evidence);
        standingsGap(evidence.standings(), evidence).ifPresent(gaps::add);
        return gaps;
    }

    private static List<Finding> gapsBesideScores(DecisionRule rule, Evidence evidence) {
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

    private static Optional<Finding> standingsGap(Standings of, Evidence evidence) {
        List<Standing> standings = evidence.contending(of);
        if (standings.size() < 2) {
            return Optional.of(new Finding.TooFewCandidates(standings.size()));
        }
        Stream<Finding> undefinedMeans = standings.stream()
                .map(Standing::adjusted)
                .filter(Estimate.Undefined.class::isInstance)
                .map(e -> new Finding.StandingsUndefined(((Estimate.Undefined) e).reason()));
        Stream<Finding> undefinedIntervals = evidence.contendingDifferences(of).stream()
                .map(Difference::adjustedInterval)
                .filter(Interval.Undefined.class::isInstance)
                .map(i -> new Finding.StandingsUndefined(((Interval.Undefined) i).reason()));
        return Stream.concat(undefinedMeans, undefinedIntervals).findFirst();
    }
}
