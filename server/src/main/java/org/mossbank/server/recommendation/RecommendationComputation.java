package org.mossbank.server.recommendation;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.mossbank.core.comparison.Difference;
import org.mossbank.core.comparison.Standing;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.comparison.WithBest;
import org.mossbank.core.decision.Decision;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.robustness.GradedAnswers;
import org.mossbank.core.robustness.Weighing;
import org.mossbank.server.agreement.AgreementReport;
import org.mossbank.server.agreement.Agreements;
import org.mossbank.server.agreement.StudyAgreement;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.grading.SentGrade;
import org.mossbank.server.ids.CandidateId;
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
        for (AnswerFacts a : data.answers().values()) {
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

    private static List<RecommendationReport.SeveralModels> severalModels(RecommendationData data) {
        Map<CandidateId, Map<String, Integer>> answered = new HashMap<>();
        for (AnswerFacts a : data.answers().values()) {
            a.measures()
                    .models()
                    .forEach(m -> answered.computeIfAbsent(a.candidateId(), c -> new TreeMap<>())
                            .merge(m, 1, Integer::sum));
        }
        return data.candidates().stream()
                .filter(c -> answered.getOrDefault(c.id(), Map.of()).size() > 1)
                .map(c -> new RecommendationReport.SeveralModels(
                        c.id(),
                        Require.known(answered, c.id()).entrySet().stream()
                                .map(e -> new RecommendationReport.Answered(e.getKey(), e.getValue()))
                                .toList()))
                .toList();
    }

    RecommendationReport compute(StudyId study, long revision) {
        StudyAgreement agreement = agreements.of(study);
        int giveAways = masking.namesLeft(study).size();
        RecommendationData data = basis.of(study);
        return heavy.run(() -> compute(revision, data, agreement, giveAways));
    }

    /** What a look shows, and on how much it rests. */
    record Seen(RecommendationReport report, RecommendationData.Information information) {}

    Seen look(StudyId study) {
        StudyAgreement agreement = agreements.of(study);
        int giveAways = masking.namesLeft(study).size();
        RecommendationData data = basis.of(study);
        return heavy.run(() -> new Seen(compute(0, data.counted(), agreement, giveAways), data.information()));
    }

    RecommendationData.Information information(StudyId study) {
        return basis.of(study).information();
    }

    static RecommendationReport compute(long revision, RecommendationData data, StudyAgreement agreed, int giveAways) {
        AgreementReport agreement = agreed.report();
        RuleTerms terms = data.rule();
        GradedAnswers graded = data.graded(terms.failedAnswers(), true);
        Ruling ruling = Ruling.of(data, agreed, giveAways, graded);
        Decision decision = ruling.decision();
        Sentences sentences = sentences(data);
        GradedAnswers ungated = terms.gate() == null ? graded : data.graded(terms.failedAnswers(), false);
        Weighing weighing = ungated.weighing();
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
                        (int) data.grades().stream()
                                .map(SentGrade::raterId)
                                .distinct()
                                .count(),
                        data.prompts().size(),
                        data.answers().size(),
                        Ruling.options(data).resamples(),
                        data.round().withdrawn()),
                data.candidates().stream()
                        .map(RecommendationReport.CandidateName::of)
                        .toList(),
                new RecommendationReport.AllowanceView(
                        data.decisionRule().allowance().overall(),
                        data.decisionRule().allowance().kinds()),
                agreed.decisive().stream()
                        .filter(c -> c.weight() > 0)
                        .map(c -> new RecommendationReport.DecisiveView(
                                c.criterionId(),
                                c.criterion(),
                                c.weight(),
                                Figure.of(c.value(), c.interval()),
                                c.floor()))
                        .toList(),
                field(decision, terms.margin(), data),
                views(ruling.overall(), data),
                data.criteria().parallelStream()
                        .map(c -> new RecommendationReport.CriterionStandings(
                                c.id(),
                                c.name(),
                                views(
                                        Ruling.standings(weighing.grid(data.onlyOn(c)), Ruling.WITHOUT_CHANCES, data),
                                        data)))
                        .toList(),
                ruling.kinds().stream()
                        .map(k -> new RecommendationReport.KindStandings(
                                k.kind(), data.kindName(k.kind()), views(k.standings(), data)))
                        .toList(),
                ruling.overall().differences().stream().map(d -> view(d, data)).toList(),
                data.candidates().stream().map(c -> Measured.of(c, data)).toList(),
                Measured.costs(data),
                failed(data, agreed, giveAways, decision, sentences),
                settled(data, agreed, giveAways, ruling, sentences),
                data.candidates().stream()
                        .filter(c -> !c.ruledOutBy().isEmpty())
                        .map(c -> new RecommendationReport.RuledOut(c.id(), c.ruledOutBy()))
                        .toList(),
                agreement.setAside(),
                unequalFollowUps(data),
                severalModels(data),
                data.reopenings(),
                data.expectations(),
                new RecommendationReport.BlindingView(
                        data.raters().size(),
                        data.round().leadWasBlind(),
                        giveAways,
                        data.round().sentKnowing()),
                new RecommendationReport.LookingView(
                        data.rule().looks(),
                        data.looking().taken(),
                        data.information().counted(),
                        data.information().planned()),
                data.study().forecast());
    }

    /** Where it makes a difference what answers without text count for, both are told. */
    private static RecommendationReport.FailedView failed(
            RecommendationData data, StudyAgreement agreed, int giveAways, Decision decision, Sentences sentences) {
        int answers = data.withoutText().size();
        if (answers == 0) {
            return new RecommendationReport.FailedView(0, null);
        }
        String otherwise = sentences.headline(
                Ruling.of(data, agreed, giveAways, data.rule().failedAnswers().other())
                        .decision());
        return new RecommendationReport.FailedView(
                answers, otherwise.equals(sentences.headline(decision)) ? null : otherwise);
    }

    /** Beside what decides, which rests on the original grades: how it would stand with the settled ones. */
    private static RecommendationReport.SettledView settled(
            RecommendationData data, StudyAgreement agreed, int giveAways, Ruling ruling, Sentences sentences) {
        int open = data.unsettledSplits();
        int settled = data.round().settled().size();
        if (settled == 0) {
            return new RecommendationReport.SettledView(0, open, List.of(), null);
        }
        Ruling otherwise = Ruling.of(
                data,
                agreed,
                giveAways,
                data.graded(data.rule().failedAnswers(), true, RecommendationData.Splitting.SETTLED));
        String headline = sentences.headline(otherwise.decision());
        return new RecommendationReport.SettledView(
                settled,
                open,
                otherwise.overall().standings().stream()
                        .map(s -> new RecommendationReport.SettledStanding(
                                data.candidateId(s.candidate()), Figure.of(s.adjusted())))
                        .toList(),
                headline.equals(sentences.headline(ruling.decision())) ? null : headline);
    }

    /** A candidate is called by its name, with what tells it apart where two share one. */
    static Sentences sentences(RecommendationData data) {
        Map<String, String> names = data.candidates().stream()
                .collect(Collectors.toMap(CandidateView::key, c -> label(c, data.candidates())));
        Map<String, String> criteria =
                data.criteria().stream().collect(Collectors.toMap(c -> c.id().toString(), CriterionView::name));
        return new Sentences(
                names::get,
                k -> inASentence(data.kindName(k)),
                new FindingWords(
                        names::get,
                        data::candidateId,
                        criteria::get,
                        k -> inASentence(data.kindName(k)),
                        data.study().brief().rule().coefficient().sign()));
    }

    /** Kinds are common nouns: small, unless all of it is in capitals. */
    private static String inASentence(String name) {
        return name.length() > 1 && Character.isUpperCase(name.charAt(1))
                ? name
                : name.substring(0, 1).toLowerCase(Locale.ROOT) + name.substring(1);
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

    static List<RecommendationReport.FieldView> field(Decision decision, double margin, RecommendationData data) {
        return decision.field().map(WithBest::candidates).orElse(List.of()).stream()
                .map(c -> new RecommendationReport.FieldView(
                        data.candidateId(c.name()),
                        place(c, decision, margin),
                        c.shortfall().isPresent() ? c.shortfall().getAsDouble() : null,
                        c.rival().isEmpty() ? null : data.candidateId(c.rival()),
                        c.critical()))
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

    static List<RecommendationReport.StandingView> views(Standings standings, RecommendationData data) {
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
                Figure.of(difference.adjustedP()),
                Figure.of(difference.standardError()),
                difference.freedom(),
                Figure.of(difference.estimate(), difference.here()));
    }
}
