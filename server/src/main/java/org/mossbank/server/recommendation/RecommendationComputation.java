package org.mossbank.server.recommendation;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.OptionalDouble;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.comparison.Difference;
import org.mossbank.core.comparison.ScoredCell;
import org.mossbank.core.comparison.Standing;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.comparison.WithBest;
import org.mossbank.core.decision.Decision;
import org.mossbank.core.decision.Evidence;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.rubric.CriterionGrade;
import org.mossbank.core.rubric.OverallScore;
import org.mossbank.server.agreement.AgreementReport;
import org.mossbank.server.agreement.Agreements;
import org.mossbank.server.agreement.StudyAgreement;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.Outcome;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.masking.Masking;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.study.RuleTerms;
import org.springframework.stereotype.Component;

/** Turns grades into standings and applies the decision rule. */
@Component
class RecommendationComputation {
    private static final Standings.Options OPTIONS = Standings.Options.USUAL;

    private final Masking masking;
    private final Agreements agreements;
    private final HeavyWork heavy;
    private final RecommendationBasis basis;

    RecommendationComputation(Masking masking, Agreements agreements, HeavyWork heavy, RecommendationBasis basis) {
        this.basis = basis;
        this.masking = masking;
        this.agreements = agreements;
        this.heavy = heavy;
    }

    private static List<RecommendationReport.UnequalFollowUps> unequalFollowUps(RecommendationData data) {
        List<RecommendationReport.UnequalFollowUps> all = new ArrayList<>();
        for (AnswerView a : data.answers().values()) {
            PromptView prompt = Require.known(data.prompts(), a.promptId());
            int own = a.unequalFollowUps(prompt.content().followUps());
            if (own > 0) {
                all.add(new RecommendationReport.UnequalFollowUps(
                        a.id(), prompt.id(), prompt.title(), a.candidateId(), a.attempt(), own));
            }
        }
        all.sort(Comparator.comparing(RecommendationReport.UnequalFollowUps::title)
                .thenComparing(RecommendationReport.UnequalFollowUps::attempt));
        return all;
    }

    RecommendationReport compute(StudyId study, long revision) {
        StudyAgreement agreement = agreements.of(study);
        int giveAways = masking.namesLeft(study).size();
        RecommendationData data = basis.of(study);
        return heavy.run(() -> compute(revision, data, agreement, giveAways));
    }

    private RecommendationReport compute(long revision, RecommendationData data, StudyAgreement agreed, int giveAways) {
        AgreementReport agreement = agreed.report();
        Standings overall = data.standings(data.cells(data::overall));
        RuleTerms terms = data.study().brief().rule();
        Decision decision = Decision.of(terms.decisionRule(), evidence(data, agreed, overall, giveAways));
        Sentences sentences = sentences(data);
        return new RecommendationReport(
                revision,
                decision.outcome(),
                sentences.headline(decision),
                decision.leader().map(data::candidateId).orElse(null),
                decision.findings().stream().map(sentences::view).toList(),
                rule(data),
                new RecommendationReport.BasisView(
                        agreement.sentSheets(),
                        agreement.sheets(),
                        agreement.raters().size(),
                        data.prompts().size(),
                        data.answers().size(),
                        OPTIONS.resamples()),
                data.candidates().stream()
                        .map(c -> new RecommendationReport.CandidateName(
                                c.id(), c.name(), c.content().version(), c.settingsLine(), c.isBaseline()))
                        .toList(),
                field(decision, terms.margin(), data),
                views(overall, data),
                byCriterion(data),
                overall.differences().stream().map(d -> view(d, data)).toList(),
                data.candidates().stream().map(c -> measures(c, data)).toList(),
                data.candidates().stream()
                        .filter(c -> !c.ruledOutBy().isEmpty())
                        .map(c -> new RecommendationReport.RuledOut(c.id(), c.ruledOutBy()))
                        .toList(),
                agreement.setAside(),
                unequalFollowUps(data),
                data.reopenings(),
                data.expectations(),
                new RecommendationReport.BlindingView(data.raters().size(), data.leadWasBlind(), giveAways));
    }

    private Evidence evidence(RecommendationData data, StudyAgreement agreement, Standings overall, int giveAways) {
        Map<AnswerId, Long> raters = data.ratersByAnswer();
        return new Evidence(
                new Evidence.State(
                        data.study().isBriefClosed(),
                        giveAways,
                        agreement.report().splitCount()),
                data.answers().keySet().stream()
                        .map(a -> new Evidence.AnswerRaters(
                                a.toString(), raters.getOrDefault(a, 0L).intValue()))
                        .toList(),
                agreement.decisive().stream()
                        .filter(c -> c.weight() > 0)
                        .map(c -> new Evidence.CriterionAgreement(
                                c.criterionId().toString(), c.value(), c.interval(), c.floor()))
                        .toList(),
                overall,
                data.candidates().stream()
                        .filter(c -> !c.isBaseline() && c.ruledOutBy().isEmpty())
                        .map(c -> new Evidence.Contender(c.key(), tieBreakValue(c, data)))
                        .toList());
    }

    /** What the tie-break compares: all that a candidate's answers cost, or their median time. */
    private static OptionalDouble tieBreakValue(CandidateView candidate, RecommendationData data) {
        RecommendationReport.CandidateMeasures measures = measures(candidate, data);
        return switch (data.study().brief().rule().tieBreak()) {
            case NONE -> OptionalDouble.empty();
            case COST ->
                measures.totalCost() == null
                        ? OptionalDouble.empty()
                        : OptionalDouble.of(measures.totalCost().doubleValue());
            case TIME ->
                measures.medianTotalMs() == null ? OptionalDouble.empty() : OptionalDouble.of(measures.medianTotalMs());
        };
    }

    /** A candidate is called by its name, with what tells it apart where two share one. */
    private static Sentences sentences(RecommendationData data) {
        Map<String, String> names = data.candidates().stream()
                .collect(Collectors.toMap(CandidateView::key, c -> label(c, data.candidates())));
        Map<String, String> criteria =
                data.criteria().stream().collect(Collectors.toMap(c -> c.id().toString(), CriterionView::name));
        return new Sentences(
                names::get,
                new FindingWords(
                        names::get,
                        data::candidateId,
                        criteria::get,
                        data.study().brief().rule().coefficient().sign()));
    }

    private static String label(CandidateView candidate, List<CandidateView> all) {
        boolean alone =
                all.stream().filter(c -> c.name().equals(candidate.name())).count() == 1;
        return alone
                ? candidate.name()
                : candidate.name() + " (" + candidate.content().version() + ", " + candidate.settingsLine() + ")";
    }

    private static RecommendationReport.RuleView rule(RecommendationData data) {
        RuleTerms terms = data.study().brief().rule();
        return new RecommendationReport.RuleView(
                terms,
                data.criteria().stream()
                        .map(c -> new RecommendationReport.WeightView(
                                c.id(),
                                c.key(),
                                c.name(),
                                c.weight(),
                                c.floor() != null ? c.floor() : terms.agreementFloor()))
                        .toList());
    }

    private static List<RecommendationReport.CriterionStandings> byCriterion(RecommendationData data) {
        return data.criteria().stream()
                .map(c -> {
                    // Weight 1, so that a criterion without weight has its own standings too.
                    List<ScoredCell> cells = data.cells(given -> OverallScore.of(given.stream()
                            .filter(g -> g.criterionId().equals(c.id()))
                            .map(g -> CriterionGrade.of(1, g.level(), c.highestLevel()))
                            .toList()));
                    return new RecommendationReport.CriterionStandings(
                            c.id(), c.name(), views(data.standings(cells), data));
                })
                .toList();
    }

    private static List<RecommendationReport.FieldView> field(
            Decision decision, double margin, RecommendationData data) {
        return decision.field().map(WithBest::candidates).orElse(List.of()).stream()
                .map(c -> new RecommendationReport.FieldView(
                        data.candidateId(c.name()),
                        place(c, decision, margin),
                        c.shortfall().isPresent() ? c.shortfall().getAsDouble() : null))
                .toList();
    }

    private static RecommendationReport.Place place(WithBest.Candidate candidate, Decision decision, double margin) {
        if (decision.isBest(candidate.name())) {
            return RecommendationReport.Place.BEST;
        }
        if (candidate.out()) {
            return RecommendationReport.Place.OUT;
        }
        return candidate.isSafe(margin) ? RecommendationReport.Place.SAFE : RecommendationReport.Place.OPEN;
    }

    private static List<RecommendationReport.StandingView> views(Standings standings, RecommendationData data) {
        return standings.standings().stream().map(s -> view(s, data)).toList();
    }

    private static RecommendationReport.StandingView view(Standing standing, RecommendationData data) {
        return new RecommendationReport.StandingView(
                data.candidateId(standing.candidate()),
                Figure.of(standing.adjusted(), standing.interval()),
                Figure.of(standing.plain()),
                standing.cells(),
                Figure.of(standing.chanceOfBest()));
    }

    private static RecommendationReport.DifferenceView view(Difference difference, RecommendationData data) {
        return new RecommendationReport.DifferenceView(
                data.candidateId(difference.higher()),
                data.candidateId(difference.lower()),
                Figure.of(difference.estimate(), difference.interval()),
                Figure.of(difference.estimate(), difference.adjustedInterval()),
                Figure.of(difference.adjustedP()));
    }

    private static RecommendationReport.CandidateMeasures measures(CandidateView candidate, RecommendationData data) {
        List<AnswerView> own = data.answers().values().stream()
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
}
