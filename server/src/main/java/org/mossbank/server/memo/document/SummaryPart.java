package org.mossbank.server.memo.document;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.decision.Outcome;
import org.mossbank.server.candidate.CandidateContent.Consideration;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.recommendation.RecommendationReport;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.shared.wording.Numerals;

/** The page that can be read alone: what is recommended, how sure, at what cost, what speaks against it, what it hangs on. */
final class SummaryPart {
    private final MemoBasis basis;
    private final RecommendationReport report;

    private SummaryPart(MemoBasis basis) {
        this.basis = basis;
        this.report = basis.report();
    }

    static PartInHand of(MemoBasis basis) {
        return new SummaryPart(basis).part();
    }

    private PartInHand part() {
        PartInHand part = new PartInHand(MemoSection.SUMMARY);
        part.say(basis.study().brief().question());
        part.point(label(), report.headline());
        part.point("How sure", howSure());
        part.point("At what cost", cost());
        part.point("What speaks against it", against());
        part.point("What it hangs on", hangsOn());
        part.point("What it rests on", restsOn());
        return part;
    }

    private String label() {
        return switch (report.outcome()) {
            case RECOMMENDED, SAFE_CHOICES, BY_KIND -> "Recommended";
            case UNDECIDED, WITHHELD -> "Not recommended yet";
        };
    }

    /** Whom the outcome names: the one, or those that are safe, or the best of a kind. */
    private Set<CandidateId> named() {
        return switch (report.outcome()) {
            case RECOMMENDED -> report.leaderId() == null ? Set.of() : Set.of(report.leaderId());
            case SAFE_CHOICES ->
                report.field().stream()
                        .filter(f -> f.place() == RecommendationReport.Place.SAFE
                                || f.place() == RecommendationReport.Place.BEST)
                        .map(RecommendationReport.FieldView::candidateId)
                        .collect(Collectors.toSet());
            case BY_KIND ->
                report.findings().stream()
                        .filter(f -> f.type().equals("best-of-kind") || f.type().equals("safe-in-kind"))
                        .flatMap(f -> Optional.ofNullable(f.otherCandidateId()).stream())
                        .collect(Collectors.toSet());
            case UNDECIDED, WITHHELD -> Set.of();
        };
    }

    private String howSure() {
        if (report.outcome() == Outcome.WITHHELD) {
            return findings();
        }
        String allowed = "By the rule, at most "
                + Numerals.percent(
                        report.allowance().overall() + report.allowance().kinds())
                + " of such studies may say something that is not so.";
        return (report.outcome() == Outcome.RECOMMENDED ? nearest().orElse(findings()) : findings()) + " " + allowed;
    }

    private String findings() {
        return report.findings().stream()
                .map(RecommendationReport.FindingView::sentence)
                .collect(Collectors.joining(" "));
    }

    /** How far the recommended one stands above the one that comes closest. */
    private Optional<String> nearest() {
        return report.differences().stream()
                .filter(d ->
                        d.higherId().equals(report.leaderId()) && d.difference().value() != null)
                .filter(d -> basis.candidate(d.lowerId()).ruledOutBy().isEmpty()
                        && !basis.candidate(d.lowerId()).isBaseline())
                .min(Comparator.comparingDouble(d -> valueOf(d.difference())))
                .map(d -> basis.name(d.higherId()) + " stands " + Numerals.points(valueOf(d.difference()))
                        + " points of 100 above " + basis.name(d.lowerId())
                        + ", which comes closest; over other prompts "
                        + "and raters of the sort " + limits(d.difference()) + ", with 95 % confidence. "
                        + "From " + Numerals.points(report.rule().terms().margin())
                        + " points on a difference matters.");
    }

    private static double valueOf(Figure figure) {
        return figure.value() == null ? Double.POSITIVE_INFINITY : figure.value();
    }

    private static String limits(Figure figure) {
        return figure.low() == null || figure.high() == null
                ? "there is no interval"
                : "between " + Numerals.points(figure.low()) + " and " + Numerals.points(figure.high());
    }

    private String cost() {
        RecommendationReport.CostView costs = report.costs();
        List<String> said = new ArrayList<>();
        String currency = costs.currency();
        if (costs.why() != null || currency == null) {
            said.add("What a prompt costs cannot be compared: "
                    + (costs.why() == null ? "no cost is known" : costs.why()) + ".");
        } else {
            said.add("A prompt costs on average, over " + Numerals.count(costs.prompts(), "prompt", "prompts")
                    + " that all answered" + (costs.estimated() ? ", in part estimated" : "") + ": "
                    + costs.means().stream()
                            .map(m -> basis.name(m.candidateId()) + " " + Numerals.money(m.mean(), currency))
                            .collect(Collectors.joining(", "))
                    + ".");
        }
        named().stream()
                .map(basis::candidate)
                .sorted(Comparator.comparing(CandidateView::name))
                .map(c -> TradeOffParts.price(c.content().price()).map(p -> basis.name(c.id()) + ": " + p + "."))
                .flatMap(Optional::stream)
                .forEach(said::add);
        return String.join(" ", said);
    }

    private String against() {
        List<String> said = new ArrayList<>();
        Set<CandidateId> named = named();
        for (CandidateView c : basis.candidates()) {
            if (named.contains(c.id())) {
                c.content().considerations().stream()
                        .filter(f -> f.sign() == Consideration.Sign.AGAINST)
                        .forEach(f -> said.add(basis.name(c.id()) + ": " + PartInHand.sentence(f.text())));
            }
        }
        said.addAll(baselines(named));
        report.unequalFollowUps().stream()
                .filter(u -> named.contains(u.candidateId()))
                .map(RecommendationReport.UnequalFollowUps::candidateId)
                .distinct()
                .forEach(c -> said.add(basis.name(c) + " got follow-ups of its own that the others did not."));
        report.severalModels().stream()
                .filter(s -> named.contains(s.candidateId()))
                .forEach(s -> said.add("More than one model answered for " + basis.name(s.candidateId())
                        + ", by its service's own word."));
        another(report.failed().otherwise())
                .ifPresent(o ->
                        said.add("If answers that left nothing to grade counted the other way, it would be: " + o));
        another(report.settled().otherwise()).ifPresent(o -> said.add("With settled grades it would be: " + o));
        if (!basis.dissents().isEmpty()) {
            said.add(Numerals.count(basis.dissents().size(), "rater sees", "raters see")
                    + " it otherwise, in their own words below.");
        }
        return said.isEmpty() && !named.isEmpty() ? "Nothing on record." : String.join(" ", said);
    }

    /** What would be said otherwise, where it is more than other figures of the same. */
    private Optional<String> another(@Nullable String otherwise) {
        return Optional.ofNullable(otherwise)
                .filter(o ->
                        !o.replaceAll("[0-9]+", "").equals(report.headline().replaceAll("[0-9]+", "")));
    }

    /** A person's own answers that stand above what is recommended. */
    private List<String> baselines(Set<CandidateId> named) {
        List<String> said = new ArrayList<>();
        for (CandidateView c : basis.candidates()) {
            boolean higher =
                    c.isBaseline() && !named.isEmpty() && named.stream().anyMatch(n -> score(c.id()) > score(n));
            if (higher) {
                said.add(basis.name(c.id()) + ", a person’s own answers, stands higher than what is recommended.");
            }
        }
        return said;
    }

    private double score(CandidateId id) {
        return report.overall().stream()
                .filter(s -> s.candidateId().equals(id))
                .map(s -> s.adjusted().value())
                .map(v -> v == null ? Double.NEGATIVE_INFINITY : v)
                .findFirst()
                .orElse(Double.NEGATIVE_INFINITY);
    }

    private String hangsOn() {
        return basis.robustness().sentence().isBlank()
                ? "Nothing is recommended over all kinds, so nothing was left out to try it."
                : basis.robustness().sentence();
    }

    private String restsOn() {
        RecommendationReport.BasisView rests = report.basis();
        Integer withdrawn = rests.withdrawn();
        return Numerals.count(rests.answers(), "answer", "answers") + " to "
                + Numerals.count(rests.prompts(), "prompt", "prompts") + ", graded by "
                + Numerals.count(rests.raters(), "rater", "raters") + " who did not know whose they were, on "
                + rests.sentSheets() + " of " + Numerals.count(rests.sheets(), "sheet", "sheets") + "."
                + (withdrawn == null || withdrawn == 0
                        ? ""
                        : " " + Numerals.count(withdrawn, "more sheet was", "more sheets were") + " withdrawn and "
                                + (withdrawn == 1 ? "counts nowhere." : "count nowhere."))
                + (report.setAside().isEmpty()
                        ? ""
                        : " " + Numerals.count(report.setAside().size(), "prompt was", "prompts were")
                                + " found faulty and "
                                + (report.setAside().size() == 1 ? "counts nowhere." : "count nowhere."));
    }
}
