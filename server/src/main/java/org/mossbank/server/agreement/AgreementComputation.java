package org.mossbank.server.agreement;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.mossbank.core.agreement.AgreementWeights;
import org.mossbank.core.agreement.Coefficient;
import org.mossbank.core.agreement.CohenKappa;
import org.mossbank.core.agreement.PercentAgreement;
import org.mossbank.core.agreement.Rating;
import org.mossbank.core.agreement.RatingMatrix;
import org.mossbank.core.agreement.Split;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.estimate.Resamples;
import org.mossbank.core.severity.GradedUnit;
import org.mossbank.core.severity.Severity;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.SentGrade;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.KindView;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.Snapshot;
import org.mossbank.server.study.Studies;
import org.mossbank.server.study.StudyView;
import org.springframework.stereotype.Component;

/** Turns the grades of a study into the core's terms and the core's figures into a report. */
@Component
class AgreementComputation {
    private static final int RESAMPLES = 2000;
    private static final double LEVEL = Coefficients.LEVEL;
    /** More than anybody talks through; the count says how many there are. */
    private static final int SHOWN_SPLITS = 100;

    private final Studies studies;
    private final Prompts prompts;
    private final Answers answers;
    private final Rubrics rubrics;
    private final Grading grading;
    private final Accounts accounts;
    private final Snapshot snapshot;
    private final HeavyWork heavy;

    AgreementComputation(
            Studies studies,
            Prompts prompts,
            Answers answers,
            Rubrics rubrics,
            Grading grading,
            Accounts accounts,
            Snapshot snapshot,
            HeavyWork heavy) {
        this.studies = studies;
        this.prompts = prompts;
        this.answers = answers;
        this.rubrics = rubrics;
        this.grading = grading;
        this.accounts = accounts;
        this.snapshot = snapshot;
        this.heavy = heavy;
    }

    /** All that the figures are computed from. */
    private record Data(
            StudyView study,
            List<KindView> kinds,
            List<CriterionView> criteria,
            Map<AnswerId, PromptView> promptOfAnswer,
            Map<AccountId, AccountView> raters,
            List<SentGrade> grades,
            List<SentGrade> repeats,
            Grading.SheetTotals totals,
            List<AgreementReport.SetAsidePrompt> setAside) {

        double floor(CriterionView criterion) {
            Double own = criterion.floor();
            return own != null ? own : study.brief().rule().agreementFloor();
        }

        Coefficient coefficient() {
            return study.brief().rule().coefficient();
        }

        String rater(String id) {
            return Require.known(raters, AccountId.from(id)).displayName();
        }

        PromptView prompt(String answer) {
            return Require.known(promptOfAnswer, AnswerId.from(answer));
        }

        RatingMatrix matrix(CriterionView criterion, List<SentGrade> part) {
            List<Rating> ratings = part.stream()
                    .filter(g -> g.criterionId().equals(criterion.id()))
                    .map(g -> new Rating(g.answerId().toString(), g.raterId().toString(), g.level()))
                    .toList();
            return RatingMatrix.ofLevels(ratings, criterion.highestLevel());
        }

        /** Wordings of one prompt belong together like the answers to one wording. */
        Coefficients coefficients(CriterionView criterion, List<SentGrade> part) {
            return Coefficients.of(
                    matrix(criterion, part), answer -> prompt(answer).family().toString());
        }

        List<SentGrade> within(KindView kind) {
            return grades.stream()
                    .filter(g -> Require.known(promptOfAnswer, g.answerId())
                            .kind()
                            .id()
                            .equals(kind.id()))
                    .toList();
        }
    }

    StudyAgreement compute(StudyId study, long revision) {
        Data data = snapshot.of(() -> gather(study));
        return heavy.run(() -> compute(data, revision));
    }

    private StudyAgreement compute(Data data, long revision) {
        List<AgreementReport.SplitView> splits = splits(data);
        Grading.SheetTotals totals = data.totals;
        List<OnCriterion> onCriteria =
                data.criteria.stream().map(c -> agreement(c, data)).toList();
        AgreementReport report = new AgreementReport(
                revision,
                totals.sent(),
                totals.sheets(),
                data.coefficient(),
                RESAMPLES,
                onCriteria.stream().map(OnCriterion::view).toList(),
                data.raters.values().stream()
                        .sorted(Comparator.comparing(AccountView::displayName))
                        .map(r -> new AgreementReport.RaterName(r.id(), r.displayName()))
                        .toList(),
                data.criteria.stream().flatMap(c -> pairs(c, data).stream()).toList(),
                severity(data),
                selfAgreement(data),
                splits.stream().limit(SHOWN_SPLITS).toList(),
                splits.size(),
                data.setAside);
        return new StudyAgreement(
                report, onCriteria.stream().map(OnCriterion::decisive).toList());
    }

    private Data gather(StudyId study) {
        Map<PromptId, PromptView> byId =
                prompts.ofStudy(study).stream().collect(Collectors.toMap(PromptView::id, Function.identity()));
        List<AnswerView> all = answers.ofStudy(study);
        Map<AnswerId, String> answerKeys = all.stream().collect(Collectors.toMap(AnswerView::id, AnswerView::key));
        Map<AccountId, AccountView> raters = accounts.byId(studies.raters(study));
        // By keys that an archive keeps, so that a study loaded again gives the same intervals.
        List<SentGrade> grades = grading.sentGrades(study).stream()
                .sorted(Comparator.comparing((SentGrade g) -> answerKeys.get(g.answerId()))
                        .thenComparing(g -> Require.known(raters, g.raterId()).signInName()))
                .toList();
        return new Data(
                studies.get(study),
                prompts.kinds(study),
                rubrics.ofStudy(study),
                all.stream().collect(Collectors.toMap(AnswerView::id, a -> byId.get(a.promptId()))),
                raters,
                grades,
                grading.repeatGrades(study),
                grading.totals(study),
                byId.values().stream()
                        .sorted(Comparator.comparing(PromptView::key))
                        .flatMap(p -> AgreementComputation.setAside(p).stream())
                        .toList());
    }

    private static Optional<AgreementReport.SetAsidePrompt> setAside(PromptView prompt) {
        PromptView.FaultView fault = prompt.fault();
        return fault == null
                ? Optional.empty()
                : Optional.of(new AgreementReport.SetAsidePrompt(prompt.id(), prompt.title(), fault.reason()));
    }

    private record OnCriterion(AgreementReport.CriterionAgreement view, StudyAgreement.Decisive decisive) {}

    private static OnCriterion agreement(CriterionView criterion, Data data) {
        Coefficients overall = data.coefficients(criterion, data.grades);
        AgreementReport.CriterionAgreement view = new AgreementReport.CriterionAgreement(
                criterion.id(),
                criterion.name(),
                criterion.weight(),
                data.floor(criterion),
                criterion.highestLevel(),
                overall.figures(data.coefficient(), data.floor(criterion)),
                data.kinds.stream()
                        .map(k -> new AgreementReport.KindAgreement(
                                k.id(),
                                k.name(),
                                data.coefficients(criterion, data.within(k))
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

    private static List<AgreementReport.PairAgreement> pairs(CriterionView criterion, Data data) {
        RatingMatrix matrix = data.matrix(criterion, data.grades);
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

    private static List<AgreementReport.RaterFigures> severity(Data data) {
        Map<CriterionId, CriterionView> criteria =
                data.criteria.stream().collect(Collectors.toMap(CriterionView::id, Function.identity()));
        List<GradedUnit> units = data.grades.stream()
                .map(g -> new GradedUnit(
                        Require.known(data.promptOfAnswer, g.answerId()).id().toString(),
                        g.answerId() + "/" + g.criterionId(),
                        g.raterId().toString(),
                        g.level(),
                        Require.known(criteria, g.criterionId()).highestLevel()))
                .toList();
        return Severity.of(units, RESAMPLES, LEVEL, Resamples.generator(data.study.seed())).stream()
                .map(s -> new AgreementReport.RaterFigures(
                        AccountId.from(s.rater()),
                        data.rater(s.rater()),
                        Figure.of(s.severity(), s.interval()),
                        s.grades(),
                        s.shareAtEnds()))
                .sorted(Comparator.comparing(AgreementReport.RaterFigures::name))
                .toList();
    }

    /** First against second grades of answers that came twice; raters without any are left out. */
    private static List<AgreementReport.SelfAgreement> selfAgreement(Data data) {
        record Cell(AccountId rater, AnswerId answer, CriterionId criterion) {}
        Map<Cell, Integer> first = new HashMap<>();
        data.grades.forEach(g -> first.put(new Cell(g.raterId(), g.answerId(), g.criterionId()), g.level()));
        int highest = data.criteria.stream()
                .mapToInt(CriterionView::highestLevel)
                .max()
                .orElse(1);
        Map<AccountId, List<Rating>> byRater = new HashMap<>();
        for (SentGrade again : data.repeats) {
            Integer before = first.get(new Cell(again.raterId(), again.answerId(), again.criterionId()));
            if (before != null) {
                String unit = again.answerId() + "/" + again.criterionId();
                List<Rating> own = byRater.computeIfAbsent(again.raterId(), r -> new ArrayList<>());
                own.add(new Rating(unit, "first", before));
                own.add(new Rating(unit, "second", again.level()));
            }
        }
        return byRater.entrySet().stream()
                .map(e -> selfAgreement(
                        e.getKey(), data.rater(e.getKey().toString()), RatingMatrix.ofLevels(e.getValue(), highest)))
                .sorted(Comparator.comparing(AgreementReport.SelfAgreement::name))
                .toList();
    }

    private static AgreementReport.SelfAgreement selfAgreement(AccountId rater, String name, RatingMatrix twice) {
        PercentAgreement exact = PercentAgreement.of(twice, 0);
        CohenKappa kappa = CohenKappa.of(twice, 0, 1, AgreementWeights.quadratic(twice.levels()));
        return new AgreementReport.SelfAgreement(
                rater,
                name,
                exact.pairs(),
                Figure.of(exact.pooled()),
                Figure.of(PercentAgreement.of(twice, 1).pooled()),
                Figure.of(kappa.kappa()));
    }

    private static List<AgreementReport.SplitView> splits(Data data) {
        return data.criteria.stream()
                .flatMap(c -> Split.of(data.matrix(c, data.grades)).stream().map(s -> split(c, s, data)))
                .sorted(Comparator.comparingInt(AgreementReport.SplitView::distance)
                        .reversed()
                        .thenComparing(AgreementReport.SplitView::promptTitle)
                        .thenComparing(AgreementReport.SplitView::answerId))
                .toList();
    }

    private static AgreementReport.SplitView split(CriterionView criterion, Split split, Data data) {
        PromptView prompt = data.prompt(split.unit());
        return new AgreementReport.SplitView(
                AnswerId.from(split.unit()),
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
