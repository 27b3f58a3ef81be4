package org.mossbank.server.agreement;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.mossbank.core.agreement.KrippendorffAlpha;
import org.mossbank.core.agreement.Metric;
import org.mossbank.core.agreement.RatingMatrix;
import org.mossbank.core.diagnosis.Disagreement;
import org.mossbank.core.diagnosis.Influence;
import org.mossbank.core.diagnosis.UseOfScale;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Jackknife;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.SentGrade;
import org.mossbank.server.grading.SentPlace;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.database.Snapshot;
import org.springframework.stereotype.Component;

/** Works out where raters part. */
@Component
class DiagnosisComputation {
    private static final double LEVEL = Coefficients.LEVEL;
    /** More than anybody looks through. */
    private static final int MOST_PROMPTS = 100;

    private final AgreementBasis basis;
    private final Grading grading;
    private final Snapshot snapshot;
    private final HeavyWork heavy;

    DiagnosisComputation(AgreementBasis basis, Grading grading, Snapshot snapshot, HeavyWork heavy) {
        this.basis = basis;
        this.grading = grading;
        this.snapshot = snapshot;
        this.heavy = heavy;
    }

    DiagnosisReport compute(StudyId study) {
        AgreementData data = basis.of(study);
        List<SentPlace> places = snapshot.of(() -> grading.sentPlaces(study));
        return heavy.run(() -> compute(data, places));
    }

    static DiagnosisReport compute(AgreementData data, List<SentPlace> places) {
        return new DiagnosisReport(
                data.criteria().stream().map(c -> onCriterion(c, data, places)).toList());
    }

    private static DiagnosisReport.OnCriterion onCriterion(
            CriterionView criterion, AgreementData data, List<SentPlace> places) {
        RatingMatrix matrix = data.matrix(criterion, data.grades());
        Disagreement found = Disagreement.of(matrix, data::family);
        Map<String, PromptView> prompts = data.families();
        return new DiagnosisReport.OnCriterion(
                criterion.id(),
                criterion.name(),
                Figure.of(alpha(matrix)),
                Figure.of(alpha(matrix), forOtherRaters(matrix, data)),
                found.prompts().stream()
                        .limit(MOST_PROMPTS)
                        .map(s -> {
                            PromptView p = Require.known(prompts, s.first());
                            return new DiagnosisReport.PromptShare(p.id(), p.title(), s.share(), s.pairs());
                        })
                        .toList(),
                found.raterPairs().stream()
                        .map(s -> new DiagnosisReport.RaterShare(
                                AccountId.from(s.first()), AccountId.from(s.second()), s.share(), s.pairs()))
                        .toList(),
                found.levelPairs().stream()
                        .map(s -> new DiagnosisReport.LevelShare(
                                Integer.parseInt(s.first()), Integer.parseInt(s.second()), s.share(), s.pairs()))
                        .toList(),
                found.merged().stream()
                        .map(m -> new DiagnosisReport.MergedLevels(m.lower(), Figure.of(m.alpha())))
                        .toList(),
                withoutPrompt(matrix, data, prompts),
                withoutRater(matrix),
                UseOfScale.of(matrix).stream()
                        .map(u -> new DiagnosisReport.RaterUse(AccountId.from(u.rater()), u.counts()))
                        .toList(),
                drift(criterion, data, places));
    }

    private static Interval forOtherRaters(RatingMatrix matrix, AgreementData data) {
        return Jackknife.ofAgreementOfOthers(
                alpha(matrix),
                KrippendorffAlpha.of(matrix, data::family).leaveOneOut(Metric.ORDINAL),
                matrix.raters().stream()
                        .mapToDouble(r -> alpha(matrix.without(r)).value().orElse(Double.NaN))
                        .toArray(),
                LEVEL);
    }

    private static Estimate alpha(RatingMatrix matrix) {
        return KrippendorffAlpha.of(matrix).value(Metric.ORDINAL);
    }

    private static List<DiagnosisReport.WithoutPrompt> withoutPrompt(
            RatingMatrix matrix, AgreementData data, Map<String, PromptView> prompts) {
        List<String> families =
                matrix.units().stream().map(data::family).distinct().toList();
        double[] without = KrippendorffAlpha.of(matrix, data::family).leaveOneOut(Metric.ORDINAL);
        List<DiagnosisReport.WithoutPrompt> all = new ArrayList<>();
        for (int i = 0; i < without.length; i++) {
            if (!Double.isNaN(without[i])) {
                PromptView prompt = Require.known(prompts, families.get(i));
                all.add(new DiagnosisReport.WithoutPrompt(
                        prompt.id(), prompt.title(), Figure.of(Estimate.of(without[i]))));
            }
        }
        // Those without which raters would agree most come first.
        all.sort(java.util.Comparator.comparingDouble((DiagnosisReport.WithoutPrompt w) ->
                        w.alpha().value() == null ? -1 : w.alpha().value())
                .reversed());
        return all.stream().limit(MOST_PROMPTS).toList();
    }

    private static List<DiagnosisReport.WithoutRater> withoutRater(RatingMatrix matrix) {
        return matrix.raters().stream()
                .map(r -> new DiagnosisReport.WithoutRater(AccountId.from(r), Figure.of(alpha(matrix.without(r)))))
                .toList();
    }

    /** Against the mean of the others' grades of the same answers, over the order of a rater's sheets. */
    private static List<DiagnosisReport.RaterDrift> drift(
            CriterionView criterion, AgreementData data, List<SentPlace> places) {
        Map<String, Integer> order = new HashMap<>();
        places.forEach(p -> order.put(p.answerId() + " " + p.raterId(), p.sheetPlace()));
        Map<String, List<SentGrade>> byAnswer = new HashMap<>();
        data.grades().stream()
                .filter(g -> g.criterionId().equals(criterion.id()))
                .forEach(g -> byAnswer.computeIfAbsent(g.answerId().toString(), a -> new ArrayList<>())
                        .add(g));
        Map<AccountId, List<Influence.Observation>> all = new HashMap<>();
        byAnswer.forEach((answer, grades) -> grades.forEach(g -> {
            Integer sheet = order.get(answer + " " + g.raterId());
            if (sheet != null && grades.size() > 1) {
                double others = grades.stream()
                        .filter(o -> !o.raterId().equals(g.raterId()))
                        .mapToInt(SentGrade::level)
                        .average()
                        .orElseThrow();
                all.computeIfAbsent(g.raterId(), r -> new ArrayList<>())
                        .add(new Influence.Observation("", "", data.family(answer), sheet, g.level() - others));
            }
        }));
        return all.entrySet().stream()
                .map(e -> {
                    Influence found = Influence.of(e.getValue(), LEVEL);
                    return new DiagnosisReport.RaterDrift(
                            e.getKey(), Figure.of(found.slope(), found.interval()), found.scores());
                })
                .sorted(java.util.Comparator.comparing(d -> d.raterId().toString()))
                .toList();
    }
}
