package org.mossbank.server.expected;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.comparison.ScoredCell;
import org.mossbank.core.diagnosis.Favourites;
import org.mossbank.core.ranking.RankCorrelation;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.recommendation.RecommendationReport;
import org.mossbank.server.recommendation.Recommendations;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.study.Declared;
import org.mossbank.server.study.Role;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyPeople;
import org.springframework.stereotype.Component;

/** Holds what was expected and claimed against what came out. */
@Component
class ExpectedComputation {
    private final Recommendations recommendations;
    private final Candidates candidates;
    private final Studies studies;
    private final StudyPeople people;
    private final HeavyWork heavy;

    ExpectedComputation(
            Recommendations recommendations,
            Candidates candidates,
            Studies studies,
            StudyPeople people,
            HeavyWork heavy) {
        this.recommendations = recommendations;
        this.candidates = candidates;
        this.studies = studies;
        this.people = people;
        this.heavy = heavy;
    }

    /**
     * What it is made of.
     *
     * @param models candidates that are no person's
     * @param cells  by candidates' keys and raters' names to sign in
     */
    record Basis(
            List<CandidateView> models,
            List<Declared> declared,
            Map<AccountId, AccountView> people,
            Map<AccountId, Role> members,
            RecommendationReport report,
            List<ScoredCell> cells,
            List<ClaimContent> claims,
            Map<AccountId, CandidateId> matches,
            long seed) {}

    ExpectedReport of(StudyId study, List<ClaimContent> claims, Map<AccountId, CandidateId> matches) {
        List<Declared> declared = studies.expectations(study);
        Basis basis = new Basis(
                candidates.ofStudy(study).stream().filter(c -> !c.isBaseline()).toList(),
                declared,
                people.of(study, declared.stream().map(Declared::accountId).toList()),
                studies.members(study),
                recommendations.report(study),
                declared.isEmpty() ? List.of() : recommendations.scores(study),
                claims,
                matches,
                studies.get(study).seed());
        return heavy.run(() -> of(basis));
    }

    static ExpectedReport of(Basis basis) {
        List<CandidateId> order = basis.report.overall().stream()
                .map(RecommendationReport.StandingView::candidateId)
                .filter(id -> basis.models.stream().anyMatch(c -> c.id().equals(id)))
                .toList();
        List<ExpectedReport.Expecting> expecting =
                basis.declared.stream().map(d -> expecting(d, order, basis)).toList();
        return new ExpectedReport(expecting, measures(basis), favourites(expecting, basis));
    }

    /** Words that are a candidate's name are taken for it; a lead's word goes before that. */
    private static Optional<CandidateId> byName(String words, Basis basis) {
        List<CandidateId> named = basis.models.stream()
                .filter(c -> c.name()
                        .strip()
                        .toLowerCase(Locale.ROOT)
                        .equals(words.strip().toLowerCase(Locale.ROOT)))
                .map(CandidateView::id)
                .toList();
        return named.size() == 1 ? Optional.of(named.get(0)) : Optional.empty();
    }

    private static ExpectedReport.Expecting expecting(Declared declared, List<CandidateId> order, Basis basis) {
        CandidateId matched = basis.matches.get(declared.accountId());
        CandidateId taken =
                matched != null ? matched : byName(declared.expects(), basis).orElse(null);
        int place = taken == null ? -1 : order.indexOf(taken);
        AccountView person = basis.people.get(declared.accountId());
        return new ExpectedReport.Expecting(
                declared.accountId(),
                person == null ? "" : person.displayName(),
                basis.members.get(declared.accountId()) == Role.LEAD,
                declared.expects(),
                declared.usesToday(),
                declared.declaredAt(),
                taken,
                matched == null && taken != null,
                place < 0 ? null : (Integer) (place + 1),
                taken == null ? null : surprised(taken, basis.report));
    }

    private static @Nullable Boolean surprised(CandidateId taken, RecommendationReport report) {
        boolean anyChosen = report.field().stream().anyMatch(f -> isChosen(f.place()));
        return report.field().stream()
                .filter(f -> f.candidateId().equals(taken))
                .filter(f -> anyChosen || f.place() == RecommendationReport.Place.OUT)
                .findFirst()
                .map(f -> !isChosen(f.place()))
                .orElse(null);
    }

    private static boolean isChosen(RecommendationReport.Place place) {
        return place == RecommendationReport.Place.BEST || place == RecommendationReport.Place.SAFE;
    }

    private record Measure(String name, boolean higherIsBetter) {}

    private static List<ExpectedReport.MeasureClaimed> measures(Basis basis) {
        Map<CandidateId, Double> scores = basis.report.overall().stream()
                .filter(s -> s.adjusted().value() != null)
                .collect(Collectors.toMap(RecommendationReport.StandingView::candidateId, s -> value(s.adjusted())));
        Map<Measure, List<ClaimContent>> byMeasure = basis.claims.stream()
                .collect(Collectors.groupingBy(
                        c -> new Measure(c.measure(), c.higherIsBetter()), LinkedHashMap::new, Collectors.toList()));
        List<ExpectedReport.MeasureClaimed> measures = new ArrayList<>();
        byMeasure.forEach((measure, claims) -> measures.add(measure(measure, claims, scores)));
        return measures;
    }

    private static double value(Figure figure) {
        Double value = figure.value();
        return value == null ? Double.NaN : value;
    }

    private static ExpectedReport.MeasureClaimed measure(
            Measure measure, List<ClaimContent> claims, Map<CandidateId, Double> scores) {
        List<ClaimContent> both =
                claims.stream().filter(c -> scores.containsKey(c.candidateId())).toList();
        RankCorrelation correlation = RankCorrelation.of(
                both.stream()
                        .mapToDouble(c -> measure.higherIsBetter ? c.value() : -c.value())
                        .toArray(),
                both.stream()
                        .mapToDouble(c -> scores.getOrDefault(c.candidateId(), Double.NaN))
                        .toArray());
        return new ExpectedReport.MeasureClaimed(
                measure.name,
                measure.higherIsBetter,
                claims.stream()
                        .map(c -> new ExpectedReport.Claimed(
                                c.candidateId(), c.value(), c.source(), c.asOf(), scores.get(c.candidateId())))
                        .toList(),
                Figure.of(correlation.rho()),
                Figure.of(correlation.tauB()),
                correlation.pairs());
    }

    private static ExpectedReport.@Nullable FavouritesView favourites(
            List<ExpectedReport.Expecting> expecting, Basis basis) {
        Map<CandidateId, String> keys =
                basis.models.stream().collect(Collectors.toMap(CandidateView::id, CandidateView::key));
        Map<String, String> favourites = new LinkedHashMap<>();
        for (ExpectedReport.Expecting one : expecting) {
            String key = one.candidateId() == null ? null : keys.get(one.candidateId());
            AccountView person = basis.people.get(one.accountId());
            if (key != null && person != null) {
                favourites.put(person.signInName(), key);
            }
        }
        Favourites found = Favourites.of(basis.cells, favourites, new SplittableRandom(basis.seed));
        return found.raters() == 0
                ? null
                : new ExpectedReport.FavouritesView(
                        found.raters(),
                        Figure.of(found.higher().mean(), found.higher().interval()),
                        Figure.of(found.p()));
    }
}
