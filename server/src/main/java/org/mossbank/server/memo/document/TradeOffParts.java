package org.mossbank.server.memo.document;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.candidate.CandidateContent;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.recommendation.RecommendationReport;
import org.mossbank.server.recommendation.RobustnessReport;
import org.mossbank.server.shared.wording.Numerals;

/** What stands beside the grades: cost, time, and facts that no grade covers. */
final class TradeOffParts {
    private static final String NOT_KNOWN = "not known";

    private TradeOffParts() {}

    static PartInHand tradeOffs(MemoBasis basis) {
        RecommendationReport report = basis.report();
        PartInHand part = new PartInHand(MemoSection.TRADE_OFFS);
        part.table(
                "What answers took",
                List.of(
                        "Candidate",
                        "Whole answers#",
                        "Median time#",
                        "Median tokens out#",
                        "Cost a prompt#",
                        "All answers#"),
                report.measures().stream()
                        .map(m -> PartInHand.row(
                                basis.name(m.candidateId()),
                                m.complete() + " of " + m.answers(),
                                m.medianTotalMs() == null ? "not measured" : Numerals.duration(m.medianTotalMs()),
                                m.medianOutputTokens() == null
                                        ? "not measured"
                                        : String.valueOf(m.medianOutputTokens()),
                                mean(report.costs(), m.candidateId()),
                                money(m.totalCost(), m.currency())))
                        .toList());
        part.table(
                "Points of 100 for each unit of money that a prompt costs",
                List.of("Candidate", "Points a unit#", "Interval#"),
                basis.robustness().worth().stream()
                        .map(w -> PartInHand.row(
                                basis.name(w.candidateId()),
                                ResultParts.value(w.pointsAUnit(), 1) + " for 1 " + w.currency(),
                                ResultParts.interval(w.pointsAUnit(), 1)))
                        .toList());
        if (report.costs().why() != null) {
            part.say("What a prompt costs cannot be compared: " + report.costs().why() + ".");
        }
        CostParts.add(part, basis);
        mix(basis, basis.robustness().bestPair())
                .ifPresent(m -> part.say("As a second opinion the pair that gains most is " + m));
        mix(basis, basis.robustness().mix()).ifPresent(m -> part.say("One candidate a kind: " + m));
        return part;
    }

    private static Optional<String> mix(MemoBasis basis, RobustnessReport.@Nullable MixView mix) {
        if (mix == null || mix.gain().value() == null) {
            return Optional.empty();
        }
        List<String> parts = new ArrayList<>();
        for (int i = 0; i < mix.candidateIds().size(); i++) {
            String name = basis.name(mix.candidateIds().get(i));
            parts.add(i < mix.kinds().size() ? name + " for " + mix.kinds().get(i) : name);
        }
        return Optional.of(String.join(", ", parts) + "; over the best single one it gains "
                + ResultParts.value(mix.gain(), 1) + " points (" + ResultParts.interval(mix.gain(), 1) + ").");
    }

    private static String mean(RecommendationReport.CostView costs, CandidateId id) {
        String currency = costs.currency();
        return costs.means().stream()
                .filter(m -> m.candidateId().equals(id) && currency != null)
                .map(m -> Numerals.money(m.mean(), String.valueOf(currency)))
                .findFirst()
                .orElse(NOT_KNOWN);
    }

    private static String money(@Nullable BigDecimal amount, @Nullable String currency) {
        return amount == null || currency == null ? NOT_KNOWN : Numerals.money(amount.doubleValue(), currency);
    }

    /** What it costs by its terms; nothing where they are not known. */
    static Optional<String> price(CandidateContent.Price price) {
        List<String> said = new ArrayList<>();
        String currency = price.currency();
        if (currency != null) {
            add(said, price.monthly(), currency, "a month and person");
            add(said, price.inputPerMillion(), currency, "for a million tokens in");
            add(said, price.outputPerMillion(), currency, "for a million tokens out");
        }
        CandidateContent.Cap cap = price.cap();
        if (cap != null) {
            said.add("at most " + cap.amount() + " " + cap.unit().name().toLowerCase(Locale.ROOT) + " a "
                    + cap.period().name().toLowerCase(Locale.ROOT) + " and person");
        }
        if (!price.caps().isBlank()) {
            said.add("capped: " + price.caps().strip());
        }
        return said.isEmpty() ? Optional.empty() : Optional.of(String.join(", ", said));
    }

    private static void add(List<String> said, @Nullable BigDecimal amount, String currency, String what) {
        if (amount != null) {
            said.add(Numerals.money(amount.doubleValue(), currency) + " " + what);
        }
    }

    static PartInHand facts(MemoBasis basis) {
        PartInHand part = new PartInHand(MemoSection.FACTS);
        boolean none = basis.candidates().stream()
                .allMatch(c -> c.content().considerations().isEmpty());
        if (none) {
            return part.say("None is on record. A blank here is one of the study, not a finding.");
        }
        return part.table(
                "Facts by candidate",
                List.of("Candidate", "For it", "Against it", "Rules it out"),
                basis.candidates().stream()
                        .map(c -> PartInHand.row(
                                basis.name(c.id()),
                                facts(c, CandidateContent.Consideration.Sign.FOR),
                                facts(c, CandidateContent.Consideration.Sign.AGAINST),
                                facts(c, CandidateContent.Consideration.Sign.RULES_OUT)))
                        .toList());
    }

    private static String facts(CandidateView candidate, CandidateContent.Consideration.Sign sign) {
        String all = candidate.content().considerations().stream()
                .filter(c -> c.sign() == sign)
                .map(c -> PartInHand.sentence(c.text()))
                .collect(Collectors.joining(" "));
        return all.isEmpty() ? "none on record" : all;
    }
}
