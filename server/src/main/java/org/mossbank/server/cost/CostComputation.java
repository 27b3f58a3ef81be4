package org.mossbank.server.cost;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.tradeoff.ParetoFront;
import org.mossbank.core.tradeoff.Spending;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.answer.FactsOfAnswers;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.grading.SaidOfAnswers;
import org.mossbank.server.grading.Works;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.recommendation.RecommendationReport;
import org.mossbank.server.recommendation.Recommendations;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.database.Snapshot;
import org.springframework.stereotype.Component;

/** Works out what answers took. */
@Component
class CostComputation {
    /** More cannot be told apart in a picture. */
    private static final int MOST_DOTS = 2000;

    private final Candidates candidates;
    private final Prompts prompts;
    private final FactsOfAnswers answers;
    private final SaidOfAnswers said;
    private final Recommendations recommendations;
    private final Snapshot snapshot;
    private final HeavyWork heavy;

    CostComputation(
            Candidates candidates,
            Prompts prompts,
            FactsOfAnswers answers,
            SaidOfAnswers said,
            Recommendations recommendations,
            Snapshot snapshot,
            HeavyWork heavy) {
        this.candidates = candidates;
        this.prompts = prompts;
        this.answers = answers;
        this.said = said;
        this.recommendations = recommendations;
        this.snapshot = snapshot;
        this.heavy = heavy;
    }

    /**
     * What it is made of, as it stood at one moment.
     *
     * @param candidates that are no person's
     * @param answers    of these, to sound prompts
     * @param scores     as candidates stand
     * @param byAnswer   mean score of each answer
     */
    record Basis(
            List<CandidateView> candidates,
            Map<PromptId, PromptView> prompts,
            List<AnswerFacts> answers,
            List<SaidOfAnswers.WorksSaid> works,
            Map<CandidateId, Figure> scores,
            Map<AnswerId, Double> byAnswer) {}

    CostReport of(StudyId study) {
        Map<CandidateId, Figure> scores = recommendations.report(study).overall().stream()
                .collect(Collectors.toMap(
                        RecommendationReport.StandingView::candidateId, RecommendationReport.StandingView::adjusted));
        Map<AnswerId, Double> byAnswer = recommendations.meanScores(study);
        Basis basis = snapshot.of(() -> read(study, scores, byAnswer));
        return heavy.run(() -> of(basis));
    }

    private Basis read(StudyId study, Map<CandidateId, Figure> scores, Map<AnswerId, Double> byAnswer) {
        List<CandidateView> models =
                candidates.ofStudy(study).stream().filter(c -> !c.isBaseline()).toList();
        Set<CandidateId> ids = models.stream().map(CandidateView::id).collect(Collectors.toSet());
        Map<PromptId, PromptView> sound =
                prompts.sound(study).stream().collect(Collectors.toMap(PromptView::id, Function.identity()));
        return new Basis(
                models,
                sound,
                answers.ofStudy(study).stream()
                        .filter(a -> sound.containsKey(a.promptId()) && ids.contains(a.candidateId()))
                        .toList(),
                said.works(study),
                scores,
                byAnswer);
    }

    static CostReport of(Basis basis) {
        List<String> currencies = basis.answers.stream()
                .map(a -> a.measures().currency())
                .filter(Objects::nonNull)
                .distinct()
                .toList();
        boolean priced = currencies.size() == 1;
        Map<String, Spending> spent = Spending.of(spendings(basis, priced)).stream()
                .collect(Collectors.toMap(Spending::candidate, Function.identity()));
        List<CostReport.CostRow> rows = basis.candidates.stream()
                .filter(c -> spent.containsKey(c.key()))
                .map(c -> row(c, basis, Objects.requireNonNull(spent.get(c.key()))))
                .toList();
        List<CostReport.CostDot> dots = dots(basis, priced);
        return new CostReport(
                priced ? currencies.get(0) : null,
                why(currencies.size(), rows),
                common(basis),
                rows,
                List.of(
                        front(CostReport.Measure.COST, rows, CostReport.CostRow::cost),
                        front(CostReport.Measure.TIME, rows, CostReport.CostRow::time),
                        front(CostReport.Measure.ONE_THAT_WORKS, rows, CostReport.CostRow::oneThatWorks)),
                dots.subList(0, Math.min(MOST_DOTS, dots.size())),
                Math.max(0, dots.size() - MOST_DOTS));
    }

    private static @Nullable String why(int currencies, List<CostReport.CostRow> rows) {
        if (currencies > 1) {
            return "costs are in different currencies";
        }
        if (currencies == 0) {
            return "no answer has a cost";
        }
        return rows.stream().anyMatch(r -> r.cost().value() == null) ? "some answers have no cost" : null;
    }

    /** How many prompts everybody answered. */
    private static int common(Basis basis) {
        Map<PromptId, Set<CandidateId>> who = basis.answers.stream()
                .collect(Collectors.groupingBy(
                        AnswerFacts::promptId, Collectors.mapping(AnswerFacts::candidateId, Collectors.toSet())));
        long all =
                basis.answers.stream().map(AnswerFacts::candidateId).distinct().count();
        return (int) who.values().stream().filter(w -> w.size() == all).count();
    }

    private static List<Spending.Answer> spendings(Basis basis, boolean priced) {
        Map<CandidateId, String> keys =
                basis.candidates.stream().collect(Collectors.toMap(CandidateView::id, CandidateView::key));
        Map<AnswerId, Map<Works, Long>> words = new HashMap<>();
        basis.works.forEach(w -> words.computeIfAbsent(w.answerId(), a -> new EnumMap<>(Works.class))
                .put(w.works(), w.times()));
        return basis.answers.stream()
                .map(a -> spending(
                        a,
                        Objects.requireNonNull(keys.get(a.candidateId())),
                        words.getOrDefault(a.id(), Map.of()),
                        priced))
                .toList();
    }

    private static Spending.Answer spending(
            AnswerFacts answer, String candidate, Map<Works, Long> words, boolean priced) {
        return new Spending.Answer(
                candidate,
                answer.promptId().toString(),
                priced && answer.measures().cost() != null
                        ? OptionalDouble.of(answer.measures().cost().doubleValue())
                        : OptionalDouble.empty(),
                optional(answer.measures().totalMs()),
                answer.measures().tokens(),
                works(answer, words));
    }

    private static OptionalDouble optional(@Nullable Long measured) {
        return measured == null ? OptionalDouble.empty() : OptionalDouble.of(measured);
    }

    /** As most of those say who tried it; a tie is a no. */
    private static Spending.Works works(AnswerFacts answer, Map<Works, Long> words) {
        if (answer.isWithoutText()) {
            return Spending.Works.EMPTY;
        }
        if (Works.tried(words) == 0) {
            return Spending.Works.NOT_SAID;
        }
        return Works.most(words).filter(w -> w == Works.AS_IS).isPresent() ? Spending.Works.YES : Spending.Works.NO;
    }

    private static CostReport.CostRow row(CandidateView candidate, Basis basis, Spending spent) {
        return new CostReport.CostRow(
                candidate.id(),
                candidate.name(),
                !candidate.ruledOutBy().isEmpty(),
                basis.scores.getOrDefault(
                        candidate.id(), new Figure(null, null, null, null, "there are no grades", null)),
                Figure.of(spent.cost().mean(), spent.cost().interval()),
                Figure.of(spent.time().mean(), spent.time().interval()),
                Figure.of(spent.tokens().mean(), spent.tokens().interval()),
                spent.answers(),
                spent.empty(),
                Figure.of(spent.wasted()),
                spent.judged(),
                spent.working(),
                Figure.of(spent.oneThatWorks()));
    }

    private static CostReport.CostFront front(
            CostReport.Measure measure, List<CostReport.CostRow> rows, Function<CostReport.CostRow, Figure> figure) {
        List<ParetoFront.Option> options = new ArrayList<>();
        for (CostReport.CostRow row : rows) {
            Double score = row.score().value();
            Double cost = figure.apply(row).value();
            if (!row.ruledOut() && score != null && cost != null) {
                options.add(new ParetoFront.Option(row.candidateId().toString(), score, cost));
            }
        }
        Set<String> names = Set.copyOf(ParetoFront.of(options));
        return new CostReport.CostFront(
                measure,
                rows.stream()
                        .map(CostReport.CostRow::candidateId)
                        .filter(id -> names.contains(id.toString()))
                        .toList());
    }

    private record Place(CandidateId candidate, PromptId prompt) {}

    /** Of answers that have a score. */
    private static List<CostReport.CostDot> dots(Basis basis, boolean priced) {
        Map<Place, List<AnswerFacts>> places = basis.answers.stream()
                .filter(a -> basis.byAnswer.containsKey(a.id()))
                .collect(Collectors.groupingBy(a -> new Place(a.candidateId(), a.promptId())));
        return places.entrySet().stream()
                .map(e -> dot(e.getKey(), e.getValue(), basis, priced))
                .sorted(Comparator.comparing(CostReport.CostDot::title)
                        .thenComparing(d -> d.candidateId().toString()))
                .toList();
    }

    private static CostReport.CostDot dot(Place place, List<AnswerFacts> attempts, Basis basis, boolean priced) {
        return new CostReport.CostDot(
                place.candidate,
                place.prompt,
                Objects.requireNonNull(basis.prompts.get(place.prompt)).title(),
                attempts.stream()
                        .mapToDouble(a -> Objects.requireNonNull(basis.byAnswer.get(a.id())))
                        .average()
                        .orElseThrow(),
                priced && attempts.stream().allMatch(a -> a.measures().cost() != null)
                        ? (Double) attempts.stream()
                                .mapToDouble(
                                        a -> Objects.requireNonNull(a.measures().cost())
                                                .doubleValue())
                                .average()
                                .orElseThrow()
                        : null,
                attempts.stream().allMatch(a -> a.measures().totalMs() != null)
                        ? (Double) attempts.stream()
                                .mapToDouble(
                                        a -> Objects.requireNonNull(a.measures().totalMs()))
                                .average()
                                .orElseThrow()
                        : null);
    }
}
