package org.mossbank.server.recommendation;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.tradeoff.CostOfPrompts;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.answer.Outcome;
import org.mossbank.server.candidate.CandidateView;

/** What answers took. */
final class Measured {
    private Measured() {}

    static RecommendationReport.CandidateMeasures of(CandidateView candidate, RecommendationData data) {
        List<AnswerFacts> own = data.answers().values().stream()
                .filter(a -> a.candidateId().equals(candidate.id()))
                .toList();
        List<String> currencies = own.stream()
                .map(a -> a.measures().currency())
                .filter(Objects::nonNull)
                .distinct()
                .toList();
        BigDecimal cost = currencies.size() != 1
                ? null
                : own.stream()
                        .map(a -> a.measures().cost())
                        .filter(Objects::nonNull)
                        .reduce(BigDecimal.ZERO, BigDecimal::add);
        return new RecommendationReport.CandidateMeasures(
                candidate.id(),
                own.size(),
                (int) own.stream().filter(a -> a.outcome() == Outcome.COMPLETE).count(),
                median(own.stream().map(a -> a.measures().totalMs()).toList()),
                median(own.stream().map(a -> a.measures().outputTokens()).toList()),
                cost,
                cost == null ? null : currencies.get(0));
    }

    /** The middle value, or the rounded mean of the two middle ones. */
    private static @Nullable Long median(List<@Nullable Long> values) {
        List<Long> sorted = new ArrayList<>();
        for (Long value : values) {
            if (value != null) {
                sorted.add(value);
            }
        }
        sorted.sort(null);
        int n = sorted.size();
        if (n == 0) {
            return null;
        }
        return Math.round((sorted.get((n - 1) / 2) + sorted.get(n / 2)) / 2.0);
    }

    static RecommendationReport.CostView costs(RecommendationData data) {
        CostOfPrompts costs = data.costs();
        return new RecommendationReport.CostView(
                data.contenders().stream()
                        .filter(c -> costs.mean(c.key()).isPresent())
                        .map(c -> new RecommendationReport.MeanCost(
                                c.id(), costs.mean(c.key()).getAsDouble()))
                        .toList(),
                costs.currency().isEmpty() ? null : costs.currency(),
                costs.prompts(),
                !costs.estimated().isEmpty(),
                costs.why().isEmpty() ? null : costs.why());
    }
}
