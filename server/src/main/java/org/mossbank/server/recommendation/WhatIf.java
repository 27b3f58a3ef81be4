package org.mossbank.server.recommendation;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import jakarta.validation.Valid;
import jakarta.validation.constraints.AssertTrue;
import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.function.BiPredicate;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.decision.Decision;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.core.decision.Evidence;
import org.mossbank.core.decision.Outcome;
import org.mossbank.core.robustness.Exploring;
import org.mossbank.core.tradeoff.CostOfPrompts;
import org.mossbank.core.tradeoff.Spending;
import org.mossbank.server.agreement.Agreements;
import org.mossbank.server.agreement.StudyAgreement;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.answer.Measures;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.MonthlyCost;
import org.mossbank.server.candidate.TeamUse;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.masking.Masking;
import org.mossbank.server.shared.HeavyWork;
import org.springframework.stereotype.Component;

/** What the rule would say otherwise. Changes nothing; what is asked of a study is kept in memory while somebody asks. */
@Component
class WhatIf {
    /** As many studies as are asked about at the same time; each holds all its grades. */
    private static final int STUDIES = 4;

    private static final Duration IDLE = Duration.ofMinutes(10);

    private final Masking masking;
    private final Agreements agreements;
    private final Grading grading;
    private final RecommendationBasis basis;
    private final HeavyWork heavy;
    private final Cache<Key, Prepared> prepared =
            Caffeine.newBuilder().maximumSize(STUDIES).expireAfterAccess(IDLE).build();

    WhatIf(Masking masking, Agreements agreements, Grading grading, RecommendationBasis basis, HeavyWork heavy) {
        this.masking = masking;
        this.agreements = agreements;
        this.grading = grading;
        this.basis = basis;
        this.heavy = heavy;
    }

    private record Key(StudyId study, long revision) {}

    /** The weight of a criterion; 0 leaves it out. */
    record WeightAsked(
            @NotNull CriterionId criterionId,
            @DecimalMin("0") @DecimalMax("1000") double weight) {}

    /**
     * What is asked about; what is not named stays as the rule has it.
     *
     * @param weights        of criteria; the rule's for those that are not named
     * @param margin         points of 100 from which on a difference matters
     * @param withoutRaters  whose grades are left out
     * @param withoutPrompts what is left out of the prompts
     * @param withoutKinds   kinds whose prompts are left out
     * @param use            how the team would use it: where the rule breaks ties by cost, a month of this is what counts; absent for
     *                       what a prompt costs, as the rule has it
     */
    record AskWhatIf(
            @NotNull @Size(max = 12) List<@NotNull @Valid WeightAsked> weights,
            @DecimalMin("0") @DecimalMax("100") double margin,
            @NotNull @Size(max = 1000) List<@NotNull AccountId> withoutRaters,
            @NotNull @Size(max = 1000) List<@NotNull PromptId> withoutPrompts,
            @NotNull @Size(max = 60) List<@NotNull KindId> withoutKinds,
            @Nullable @Valid TeamUse use) {
        @AssertTrue(message = "each criterion must be named once")
        boolean isEachCriterionOnce() {
            return weights == null
                    || weights.stream().map(WeightAsked::criterionId).distinct().count() == weights.size();
        }
    }

    /**
     * What would be said.
     *
     * @param headline one sentence
     * @param same     whether that is as much as the rule says
     * @param rule     what the rule says, in one sentence
     * @param field    what would be said of each candidate against the best
     * @param overall  how candidates would stand, highest first
     * @param months   what a month of the use would cost each contender; none where no use was asked about
     */
    record WhatIfView(
            Outcome outcome,
            String headline,
            boolean same,
            String rule,
            List<RecommendationReport.FindingView> findings,
            List<RecommendationReport.FieldView> field,
            List<RecommendationReport.StandingView> overall,
            List<MonthView> months) {}

    /**
     * A month of the use that was asked about, paid for in the way that stops least, and of these the cheapest.
     *
     * @param monthly money a month
     * @param stopped tasks that a plan's cap stops
     */
    record MonthView(CandidateId candidateId, double monthly, String currency, double stopped) {}

    /** All that answers need, of a study at one revision. */
    private record Prepared(
            RecommendationData data,
            Evidence evidence,
            StudyAgreement agreed,
            Exploring exploring,
            Exploring.Found rule) {
        static Prepared of(RecommendationData data, StudyAgreement agreed, int giveAways) {
            Exploring exploring = Exploring.of(
                    data.graded(data.rule().failedAnswers(), true)
                            .ofCandidates(data.contenders().stream()
                                    .map(CandidateView::key)
                                    .toList()),
                    Ruling.WITHOUT_CHANCES.level());
            Evidence evidence =
                    Ruling.evidence(data, agreed, new Standings(List.of(), List.of()), giveAways, List.of());
            return new Prepared(
                    data,
                    evidence,
                    agreed,
                    exploring,
                    exploring.ask(data.weights(), data.decisionRule(), evidence, (prompt, rater) -> true));
        }

        private List<MonthView> months(@Nullable TeamUse use) {
            return use == null ? List.of() : TeamMonths.of(use, data);
        }

        /** With the cost of a month in the place of a prompt's, where ties are broken by cost. A plan that stops some has none. */
        private List<Evidence.Contender> contenders(List<MonthView> months) {
            boolean comparable =
                    months.stream().map(MonthView::currency).distinct().count() == 1;
            if (!comparable || data.rule().tieBreak() != DecisionRule.TieBreak.COST) {
                return evidence.contenders();
            }
            return data.contenders().stream()
                    .map(c -> new Evidence.Contender(
                            c.key(),
                            months.stream()
                                    .filter(m -> m.candidateId.equals(c.id()) && m.stopped == 0)
                                    .mapToDouble(MonthView::monthly)
                                    .findFirst()))
                    .toList();
        }

        /** What agreement there must be, on criteria with weight in what is asked about. */
        private Evidence evidence(Map<CriterionId, Double> weights, List<MonthView> months) {
            return new Evidence(
                    evidence.state(),
                    evidence.answers(),
                    agreed.decisive().stream()
                            .filter(c -> weights.getOrDefault(c.criterionId(), 0.0) > 0)
                            .map(c -> new Evidence.CriterionAgreement(
                                    c.criterionId().toString(), c.value(), c.interval(), c.floor()))
                            .toList(),
                    evidence.standings(),
                    contenders(months));
        }

        WhatIfView ask(AskWhatIf asked) {
            Map<CriterionId, Double> weights = new HashMap<>();
            data.criteria().forEach(c -> weights.put(c.id(), c.weight()));
            asked.weights.forEach(w -> weights.replace(w.criterionId, w.weight));
            List<MonthView> months = months(asked.use);
            Exploring.Found found = exploring.ask(
                    data.criteria().stream()
                            .mapToDouble(c -> Objects.requireNonNull(weights.get(c.id())))
                            .toArray(),
                    data.decisionRule().withMargin(asked.margin),
                    evidence(weights, months),
                    kept(asked));
            Decision decision = found.decision();
            Sentences sentences = RecommendationComputation.sentences(data);
            return new WhatIfView(
                    decision.outcome(),
                    sentences.headline(decision),
                    found.says().saysAsMuchAs(rule.says()),
                    sentences.headline(rule.decision()),
                    decision.findings().stream().map(sentences::view).toList(),
                    RecommendationComputation.field(decision, asked.margin, data),
                    RecommendationComputation.views(found.standings(), data),
                    months);
        }

        /** By the keys that grades are known by. */
        private BiPredicate<String, String> kept(AskWhatIf asked) {
            Set<String> raters = data.raters().values().stream()
                    .filter(r -> asked.withoutRaters.contains(r.id()))
                    .map(r -> r.signInName())
                    .collect(Collectors.toSet());
            Set<String> prompts = data.prompts().values().stream()
                    .filter(p -> asked.withoutPrompts.contains(p.id())
                            || asked.withoutKinds.contains(p.kind().id()))
                    .map(p -> p.key())
                    .collect(Collectors.toSet());
            return (prompt, rater) -> !raters.contains(rater) && !prompts.contains(prompt);
        }
    }

    WhatIfView ask(StudyId study, AskWhatIf asked) {
        long revision = grading.round(study).map(Grading.RoundState::revision).orElse(0L);
        Prepared of = prepared(new Key(study, revision));
        return heavy.run(() -> of.ask(asked));
    }

    /** Reads the grades before the first question. Not while raters grade: nothing is answered then. */
    void readAhead(StudyId study) {
        grading.round(study)
                .filter(Grading.RoundState::hasEnded)
                .ifPresent(r -> prepared(new Key(study, r.revision())));
    }

    /** Whether the grades of any revision of it are at hand. */
    boolean isReadFor(StudyId study) {
        return prepared.asMap().keySet().stream().anyMatch(k -> k.study.equals(study));
    }

    private Prepared prepared(Key key) {
        return Objects.requireNonNull(prepared.get(key, k -> prepare(k.study)));
    }

    private Prepared prepare(StudyId study) {
        StudyAgreement agreed = agreements.of(study);
        int giveAways = masking.namesLeft(study).size();
        RecommendationData data = basis.of(study);
        return heavy.run(() -> Prepared.of(data, agreed, giveAways));
    }

    /** What a month of a use would cost the contenders. */
    private static final class TeamMonths {
        private TeamMonths() {}

        /** Of those for which it is known. */
        static List<MonthView> of(TeamUse use, RecommendationData data) {
            CostOfPrompts costs = data.costs();
            Map<CandidateId, CandidateView> contenders =
                    data.contenders().stream().collect(Collectors.toMap(CandidateView::id, Function.identity()));
            Map<String, Spending> spent = Spending.of(data.answers().values().stream()
                            .filter(a -> contenders.containsKey(a.candidateId()))
                            .map(a -> tokens(Objects.requireNonNull(contenders.get(a.candidateId())), a))
                            .toList())
                    .stream()
                    .collect(Collectors.toMap(Spending::candidate, Function.identity()));
            return data.contenders().stream()
                    .flatMap(c -> month(c, use, task(costs, c.key(), spent.get(c.key()))))
                    .toList();
        }

        private static MonthlyCost.Task task(CostOfPrompts costs, String key, @Nullable Spending spent) {
            OptionalDouble cost = costs.mean(key);
            Optional<OptionalDouble> tokens =
                    Optional.ofNullable(spent).map(s -> s.tokens().mean().value());
            return new MonthlyCost.Task(
                    cost.isPresent() ? (Double) cost.getAsDouble() : null,
                    tokens.filter(OptionalDouble::isPresent)
                            .map(OptionalDouble::getAsDouble)
                            .orElse(null),
                    costs.currency().isEmpty() ? null : costs.currency());
        }

        private static Stream<MonthView> month(CandidateView candidate, TeamUse use, MonthlyCost.Task task) {
            return MonthlyCost.of(candidate.content().price(), use, task).best().stream()
                    .map(p -> new MonthView(
                            candidate.id(),
                            p.cost().monthly(),
                            p.currency(),
                            p.cost().stopped()));
        }

        /** Costs are those that the rule compares; tokens alone are needed here. */
        private static Spending.Answer tokens(CandidateView candidate, AnswerFacts answer) {
            Measures measures = answer.measures();
            return new Spending.Answer(
                    candidate.key(),
                    answer.promptId().toString(),
                    OptionalDouble.empty(),
                    OptionalDouble.empty(),
                    measures.tokens(),
                    Spending.Works.NOT_SAID);
        }
    }
}
