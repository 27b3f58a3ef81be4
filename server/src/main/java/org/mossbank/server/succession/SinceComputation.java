package org.mossbank.server.succession;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.StudentMean;
import org.mossbank.core.ruler.RulerShift;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.recommendation.RecommendationReport;
import org.mossbank.server.recommendation.Recommendations.MeanLevel;
import org.mossbank.server.shared.Figure;

/** Compares a study with the one before. */
final class SinceComputation {
    private static final double HIGHEST = 100;
    private static final double LEVEL = 0.95;

    private final Basis basis;

    private SinceComputation(Basis basis) {
        this.basis = basis;
    }

    /**
     * What is compared.
     *
     * @param levels  of this study, by answer and criterion
     * @param parts   what this study is made of
     */
    record Basis(
            Before before,
            RecommendationReport report,
            List<CandidateView> candidates,
            List<MeanLevel> levels,
            List<Before.Part> parts) {}

    static SinceReport of(Basis basis) {
        return new SinceComputation(basis).report();
    }

    private SinceReport report() {
        RulerShift ruler = ruler(c -> true);
        double margin = basis.report.rule().terms().margin();
        return new SinceReport(
                basis.before.title(),
                basis.before.endedAt(),
                new SinceReport.RulerView(
                        ruler.prompts(), ruler.answers(), figure(ruler.shift()), ruler.verdict(margin), margin),
                basis.report.rule().weights().stream()
                        .flatMap(w -> onCriterion(w).stream())
                        .toList(),
                candidates(ruler),
                changes());
    }

    private static Figure figure(StudentMean mean) {
        return Figure.of(mean.mean(), mean.interval());
    }

    private Optional<SinceReport.CriterionRuler> onCriterion(RecommendationReport.WeightView weight) {
        RulerShift ruler = ruler(weight.key()::equals);
        return ruler.answers() == 0
                ? Optional.empty()
                : Optional.of(new SinceReport.CriterionRuler(
                        weight.key(), weight.name(), ruler.answers(), figure(ruler.shift())));
    }

    private record Place(String answer, String criterion) {}

    /** On the criteria that both studies have, on the same scale. */
    private RulerShift ruler(Predicate<String> criteria) {
        Map<Place, Before.Given> then = basis.before.grades().stream()
                .filter(g -> criteria.test(g.criterion()))
                .collect(Collectors.toMap(g -> new Place(g.answer(), g.criterion()), g -> g));
        Map<String, Double> weights = basis.report.rule().weights().stream()
                .collect(Collectors.toMap(
                        RecommendationReport.WeightView::key, RecommendationReport.WeightView::weight));
        Map<String, List<MeanLevel>> now = basis.levels.stream()
                .filter(m -> matches(then.get(new Place(m.answer(), m.criterion())), m))
                .collect(Collectors.groupingBy(MeanLevel::answer));
        List<RulerShift.Anchor> anchors = new ArrayList<>();
        now.forEach((answer, levels) -> {
            boolean one = levels.size() == 1;
            double all = levels.stream()
                    .mapToDouble(m -> one ? 1 : weights.getOrDefault(m.criterion(), 0.0))
                    .sum();
            if (all > 0) {
                double before = 0;
                double after = 0;
                for (MeanLevel m : levels) {
                    double share = (one ? 1 : weights.getOrDefault(m.criterion(), 0.0)) / all;
                    Before.Given g = Objects.requireNonNull(then.get(new Place(answer, m.criterion())));
                    before += share * HIGHEST * g.level() / g.highestLevel();
                    after += share * HIGHEST * m.level() / m.highestLevel();
                }
                anchors.add(new RulerShift.Anchor(levels.get(0).prompt(), before, after));
            }
        });
        return RulerShift.of(anchors);
    }

    private static boolean matches(Before.@Nullable Given then, MeanLevel now) {
        return then != null && then.highestLevel() == now.highestLevel();
    }

    /** Those of this study in its order, then those that are gone. */
    private List<SinceReport.OnOneScale> candidates(RulerShift ruler) {
        Map<String, Before.Stood> then = Successions.byKey(basis.before.candidates(), Before.Stood::candidate);
        Map<CandidateId, Figure> now = basis.report.overall().stream()
                .collect(Collectors.toMap(
                        RecommendationReport.StandingView::candidateId, RecommendationReport.StandingView::adjusted));
        List<SinceReport.OnOneScale> all = new ArrayList<>();
        for (CandidateView c : basis.candidates) {
            Before.Stood stood = then.get(c.key());
            Before.Stood same = stood != null && isSame(stood, c) ? stood : null;
            all.add(new SinceReport.OnOneScale(
                    c.id(), c.name(), c.content().version(), score(same), moved(same, ruler), now.get(c.id())));
        }
        Map<String, CandidateView> present = Successions.byKey(basis.candidates, CandidateView::key);
        for (Before.Stood stood : basis.before.candidates()) {
            CandidateView still = present.get(stood.candidate());
            if (still == null || !isSame(stood, still)) {
                all.add(new SinceReport.OnOneScale(
                        null, stood.name(), stood.version(), score(stood), moved(stood, ruler), null));
            }
        }
        return all;
    }

    private static boolean isSame(Before.Stood stood, CandidateView now) {
        return stood.version().equals(now.content().version())
                && stood.settings().equals(now.settingsLine());
    }

    private static Estimate value(Before.Stood stood) {
        return stood.adjusted() == null ? Estimate.undefined(Reason.NO_DATA) : Estimate.of(stood.adjusted());
    }

    private static Interval interval(Before.Stood stood) {
        return stood.low() == null || stood.high() == null
                ? Interval.undefined(Reason.NO_FREEDOM_LEFT)
                : new Interval.Bounds(stood.low(), stood.high(), LEVEL);
    }

    private static @Nullable Figure score(Before.@Nullable Stood stood) {
        return stood == null ? null : Figure.of(value(stood), interval(stood));
    }

    private static @Nullable Figure moved(Before.@Nullable Stood stood, RulerShift ruler) {
        return stood == null ? null : figure(ruler.onTodaysRuler(value(stood), interval(stood)));
    }

    private List<String> changes() {
        List<String> said = new ArrayList<>();
        for (Before.Stood stood : basis.before.candidates()) {
            basis.candidates.stream()
                    .filter(c -> c.key().equals(stood.candidate()) && !isSame(stood, c))
                    .forEach(c -> said.add(
                            c.name() + " takes part in version " + c.content().version() + ", with "
                                    + (c.settingsLine().isEmpty() ? "no settings" : c.settingsLine()) + "; then it was "
                                    + stood.version() + ", with "
                                    + (stood.settings().isEmpty() ? "no settings" : stood.settings()) + "."));
        }
        Map<String, Before.Stood> then = Successions.byKey(basis.before.candidates(), Before.Stood::candidate);
        names(
                said,
                "New candidates",
                basis.candidates.stream()
                        .filter(c -> !then.containsKey(c.key()))
                        .map(CandidateView::name)
                        .toList());
        names(
                said,
                "Candidates that take no part any more",
                basis.before.candidates().stream()
                        .filter(s ->
                                basis.candidates.stream().noneMatch(c -> c.key().equals(s.candidate())))
                        .map(Before.Stood::name)
                        .toList());
        parts(said, Before.Sort.PROMPT, "New prompts", "Prompts that are gone");
        parts(said, Before.Sort.CRITERION, "New criteria", "Criteria that are gone");
        parts(said, Before.Sort.RATER, "New raters", "Raters who are gone");
        weights(said);
        return said;
    }

    private static void names(List<String> said, String what, List<String> names) {
        if (!names.isEmpty()) {
            said.add(what + ": " + String.join(", ", names) + ".");
        }
    }

    private void parts(List<String> said, Before.Sort sort, String added, String gone) {
        Map<String, String> then = named(basis.before.parts(), sort);
        Map<String, String> now = named(basis.parts, sort);
        names(said, added, without(now, then));
        names(said, gone, without(then, now));
    }

    private static List<String> without(Map<String, String> some, Map<String, String> others) {
        return some.entrySet().stream()
                .filter(e -> !others.containsKey(e.getKey()))
                .map(Map.Entry::getValue)
                .sorted()
                .toList();
    }

    private static Map<String, String> named(List<Before.Part> parts, Before.Sort sort) {
        return parts.stream()
                .filter(p -> p.sort() == sort)
                .collect(Collectors.toMap(Before.Part::key, Before.Part::name));
    }

    /** As shares of all weight, as that is what a score hangs on. */
    private void weights(List<String> said) {
        Map<String, Double> then = shares(basis.before.parts());
        shares(basis.parts).forEach((key, share) -> {
            Double before = then.get(key);
            if (before != null && Math.round(HIGHEST * before) != Math.round(HIGHEST * share)) {
                said.add(named(basis.parts, Before.Sort.CRITERION).get(key) + " weighs " + Math.round(HIGHEST * share)
                        + " % of the score; then it was " + Math.round(HIGHEST * before) + " %.");
            }
        });
    }

    private static Map<String, Double> shares(List<Before.Part> parts) {
        double all = parts.stream()
                .filter(p -> p.weight() != null)
                .mapToDouble(p -> Objects.requireNonNull(p.weight()))
                .sum();
        Map<String, Double> shares = new HashMap<>();
        parts.stream()
                .filter(p -> p.weight() != null && all > 0)
                .forEach(p -> shares.put(p.key(), Objects.requireNonNull(p.weight()) / all));
        return shares;
    }
}
