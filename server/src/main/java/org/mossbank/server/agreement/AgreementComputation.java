package org.mossbank.server.agreement;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.function.Function;
import java.util.function.ToDoubleFunction;
import java.util.stream.Collectors;
import org.mossbank.core.agreement.AgreementWeights;
import org.mossbank.core.agreement.CohenKappa;
import org.mossbank.core.agreement.PercentAgreement;
import org.mossbank.core.agreement.Rating;
import org.mossbank.core.agreement.RatingMatrix;
import org.mossbank.core.agreement.Split;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.estimate.Resamples;
import org.mossbank.core.severity.GradedUnit;
import org.mossbank.core.severity.Severity;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.RepeatDistance;
import org.mossbank.server.grading.SentGrade;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.shared.HeavyWork;
import org.springframework.stereotype.Component;

/** Turns the grades of a study into the core's terms and the core's figures into a report. */
@Component
class AgreementComputation {
    private static final int RESAMPLES = 2000;
    private static final double LEVEL = Coefficients.LEVEL;
    /** More than anybody talks through; the count says how many there are. */
    private static final int SHOWN_SPLITS = 100;

    private final AgreementBasis basis;
    private final HeavyWork heavy;

    AgreementComputation(AgreementBasis basis, HeavyWork heavy) {
        this.basis = basis;
        this.heavy = heavy;
    }

    StudyAgreement compute(StudyId study, long revision) {
        AgreementData data = basis.of(study);
        return heavy.run(() -> compute(data, revision));
    }

    static StudyAgreement compute(AgreementData data, long revision) {
        CompletableFuture<List<AgreementReport.RaterFigures>> severityLater =
                CompletableFuture.supplyAsync(() -> severity(data));
        Map<CriterionId, RatingMatrix> matrices = data.matrices();
        CompletableFuture<List<OnSplit>> splitsLater = CompletableFuture.supplyAsync(() -> splits(data, matrices));
        Grading.SheetTotals totals = data.totals();
        List<OnCriterion> onCriteria = data.criteria().parallelStream()
                .map(c -> agreement(c, Require.known(matrices, c.id()), data))
                .toList();
        List<OnSplit> splits = splitsLater.join();
        AgreementReport report = new AgreementReport(
                revision,
                totals.sent(),
                totals.sheets(),
                data.coefficient(),
                RESAMPLES,
                onCriteria.stream().map(OnCriterion::view).toList(),
                data.raters().values().stream()
                        .sorted(Comparator.comparing(AccountView::displayName))
                        .map(r -> new AgreementReport.RaterName(r.id(), r.displayName()))
                        .toList(),
                data.criteria().parallelStream()
                        .flatMap(c -> pairs(c, Require.known(matrices, c.id())).stream())
                        .toList(),
                severityLater.join(),
                selfAgreement(data),
                splits.stream().limit(SHOWN_SPLITS).map(s -> s.view(data)).toList(),
                splits.size(),
                data.setAside());
        return new StudyAgreement(
                report, onCriteria.stream().map(OnCriterion::decisive).toList());
    }

    private record OnCriterion(AgreementReport.CriterionAgreement view, StudyAgreement.Decisive decisive) {}

    private static OnCriterion agreement(CriterionView criterion, RatingMatrix matrix, AgreementData data) {
        Coefficients overall = data.coefficients(matrix);
        AgreementReport.CriterionAgreement view = new AgreementReport.CriterionAgreement(
                criterion.id(),
                criterion.name(),
                criterion.weight(),
                data.floor(criterion),
                criterion.highestLevel(),
                overall.figures(data.coefficient(), data.floor(criterion)),
                data.kinds().parallelStream()
                        .map(k -> new AgreementReport.KindAgreement(
                                k.id(),
                                k.name(),
                                data.coefficients(matrix.only(answer -> data.isOf(k, answer)))
                                        .figures(data.coefficient(), data.floor(criterion))))
                        .toList());
        return new OnCriterion(
                view,
                new StudyAgreement.Decisive(
                        criterion.id(),
                        criterion.name(),
                        criterion.weight(),
                        data.floor(criterion),
                        overall.decisive(data.coefficient()).value(),
                        overall.decisive(data.coefficient()).interval()));
    }

    private static List<AgreementReport.PairAgreement> pairs(CriterionView criterion, RatingMatrix matrix) {
        List<AgreementReport.PairAgreement> pairs = new ArrayList<>();
        for (int i = 0; i < matrix.raters().size(); i++) {
            for (int j = i + 1; j < matrix.raters().size(); j++) {
                CohenKappa quadratic = CohenKappa.of(matrix, i, j, AgreementWeights.quadratic(matrix.levels()));
                CohenKappa linear = CohenKappa.of(matrix, i, j, AgreementWeights.linear(matrix.levels()));
                pairs.add(new AgreementReport.PairAgreement(
                        criterion.id(),
                        AccountId.from(matrix.raters().get(i)),
                        AccountId.from(matrix.raters().get(j)),
                        Figure.of(quadratic.kappa()),
                        Figure.of(linear.kappa()),
                        quadratic.count()));
            }
        }
        return pairs;
    }

    private static List<AgreementReport.RaterFigures> severity(AgreementData data) {
        return Severity.of(
                        gradedUnits(data),
                        RESAMPLES,
                        LEVEL,
                        Resamples.generator(data.study().seed()))
                .stream()
                .map(s -> new AgreementReport.RaterFigures(
                        AccountId.from(s.rater()),
                        data.rater(s.rater()),
                        Figure.of(s.severity(), s.interval()),
                        s.grades(),
                        s.shareAtEnds()))
                .sorted(Comparator.comparing(AgreementReport.RaterFigures::name))
                .toList();
    }

    /** An answer on a criterion is a unit; each is named once, as hundreds of thousands of grades share them. */
    private static List<GradedUnit> gradedUnits(AgreementData data) {
        Map<CriterionId, CriterionView> criteria =
                data.criteria().stream().collect(Collectors.toMap(CriterionView::id, Function.identity()));
        Map<CriterionId, AgreementData.Written<AnswerId>> answers = new HashMap<>();
        criteria.values().forEach(c -> answers.put(c.id(), new AgreementData.Written<>(a -> a + "/" + c.key())));
        AgreementData.Written<AnswerId> prompts = new AgreementData.Written<>(
                a -> Require.known(data.promptOfAnswer(), a).id().toString());
        AgreementData.Written<AccountId> raters = new AgreementData.Written<>(AccountId::toString);
        return data.grades().stream()
                .map(g -> new GradedUnit(
                        prompts.of(g.answerId()),
                        Require.known(answers, g.criterionId()).of(g.answerId()),
                        raters.of(g.raterId()),
                        g.level(),
                        Require.known(criteria, g.criterionId()).highestLevel()))
                .toList();
    }

    /**
     * First against second grades of answers that came twice; raters without any are left out. Within each criterion, as scales may
     * be of different lengths: shares are of all pairs together, and kappa is the mean of the criteria's, each weighing as many
     * pairs as it has.
     */
    private static List<AgreementReport.SelfAgreement> selfAgreement(AgreementData data) {
        record Cell(AccountId rater, AnswerId answer, CriterionId criterion) {}
        Set<AnswerId> twice = data.repeats().stream().map(SentGrade::answerId).collect(Collectors.toSet());
        Map<Cell, Integer> first = new HashMap<>();
        data.grades().stream()
                .filter(g -> twice.contains(g.answerId()))
                .forEach(g -> first.put(new Cell(g.raterId(), g.answerId(), g.criterionId()), g.level()));
        Map<AccountId, Map<CriterionId, List<Rating>>> byRater = new HashMap<>();
        for (SentGrade again : data.repeats()) {
            Integer before = first.get(new Cell(again.raterId(), again.answerId(), again.criterionId()));
            if (before != null) {
                List<Rating> own = byRater.computeIfAbsent(again.raterId(), r -> new HashMap<>())
                        .computeIfAbsent(again.criterionId(), c -> new ArrayList<>());
                own.add(new Rating(again.answerId().toString(), "first", before));
                own.add(new Rating(again.answerId().toString(), "second", again.level()));
            }
        }
        return byRater.entrySet().stream()
                .map(e -> selfAgreement(e.getKey(), e.getValue(), data))
                .sorted(Comparator.comparing(AgreementReport.SelfAgreement::name))
                .toList();
    }

    private static AgreementReport.SelfAgreement selfAgreement(
            AccountId rater, Map<CriterionId, List<Rating>> byCriterion, AgreementData data) {
        List<RatingMatrix> twice = data.criteria().stream()
                .filter(c -> byCriterion.containsKey(c.id()))
                .map(c -> RatingMatrix.ofLevels(Require.known(byCriterion, c.id()), c.highestLevel()))
                .toList();
        return new AgreementReport.SelfAgreement(
                rater,
                data.rater(rater.toString()),
                twice.stream().mapToInt(m -> PercentAgreement.of(m, 0).pairs()).sum(),
                Figure.of(joined(twice, m -> PercentAgreement.of(m, 0).pooled())),
                Figure.of(joined(twice, m -> PercentAgreement.of(m, 1).pooled())),
                Figure.of(joined(
                        twice,
                        m -> CohenKappa.of(m, 0, 1, AgreementWeights.quadratic(m.levels()))
                                .kappa())),
                apart(rater, RepeatDistance::sheets, data),
                apart(rater, RepeatDistance::days, data));
    }

    private static double apart(AccountId rater, ToDoubleFunction<RepeatDistance> how, AgreementData data) {
        return data.repeatDistances().stream()
                .filter(d -> d.raterId().equals(rater))
                .mapToDouble(how)
                .average()
                .orElse(0);
    }

    /** The mean of a coefficient over criteria, each weighing its pairs; undefined ones are left out. */
    private static Estimate joined(List<RatingMatrix> criteria, Function<RatingMatrix, Estimate> coefficient) {
        double sum = 0;
        double weight = 0;
        Estimate last = Estimate.undefined(Reason.NO_PAIRS);
        for (RatingMatrix matrix : criteria) {
            last = coefficient.apply(matrix);
            if (last.value().isPresent()) {
                int pairs = PercentAgreement.of(matrix, 0).pairs();
                sum += pairs * last.value().orElseThrow();
                weight += pairs;
            }
        }
        return weight == 0 ? last : Estimate.of(sum / weight);
    }

    /** A split of which, out of thousands, the widest alone are told in full. */
    private record OnSplit(CriterionView criterion, PromptView prompt, Split split) {
        AgreementReport.SplitView view(AgreementData data) {
            return new AgreementReport.SplitView(
                    AnswerId.from(split.unit()),
                    Require.known(data.candidateOfAnswer(), AnswerId.from(split.unit())),
                    prompt.id(),
                    prompt.title(),
                    criterion.id(),
                    criterion.name(),
                    split.distance(),
                    split.ratings().stream()
                            .map(r -> new AgreementReport.SplitGrade(
                                    AccountId.from(r.rater()),
                                    data.rater(r.rater()),
                                    r.category(),
                                    criterion.levels().get(r.category()).name()))
                            .toList());
        }
    }

    /** Widest first. */
    private static List<OnSplit> splits(AgreementData data, Map<CriterionId, RatingMatrix> matrices) {
        return data.criteria().stream()
                .flatMap(c -> Split.of(Require.known(matrices, c.id())).stream()
                        .map(s -> new OnSplit(c, data.prompt(s.unit()), s)))
                .sorted(Comparator.comparingInt((OnSplit s) -> s.split.distance())
                        .reversed()
                        .thenComparing(s -> s.prompt.title())
                        .thenComparing(s -> s.split.unit()))
                .toList();
    }
}
