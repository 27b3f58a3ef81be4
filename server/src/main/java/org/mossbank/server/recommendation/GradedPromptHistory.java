package org.mossbank.server.recommendation;

import java.util.DoubleSummaryStatistics;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.agreement.PercentAgreement;
import org.mossbank.core.agreement.Rating;
import org.mossbank.core.agreement.RatingMatrix;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.rubric.CriterionGrade;
import org.mossbank.core.rubric.OverallScore;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.answer.FactsOfAnswers;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.SentGrade;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptHistory;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.study.RuleTerms;
import org.mossbank.server.study.Studies;
import org.springframework.stereotype.Component;

/** How a prompt of the bank did in a study: how alike raters graded it, and how far it told candidates apart. */
@Component
class GradedPromptHistory implements PromptHistory {
    private final Grading grading;
    private final FactsOfAnswers answers;
    private final Rubrics rubrics;
    private final Studies studies;

    GradedPromptHistory(Grading grading, FactsOfAnswers answers, Rubrics rubrics, Studies studies) {
        this.studies = studies;
        this.grading = grading;
        this.answers = answers;
        this.rubrics = rubrics;
    }

    @Override
    public Optional<Showing> of(StudyId study, PromptId prompt) {
        Map<AnswerId, AnswerFacts> own = answers.ofStudy(study).stream()
                .filter(a -> a.promptId().equals(prompt))
                .collect(Collectors.toMap(AnswerFacts::id, Function.identity()));
        List<SentGrade> grades = grading.sentGrades(study).stream()
                .filter(g -> own.containsKey(g.answerId()))
                .toList();
        if (grades.isEmpty()) {
            return Optional.empty();
        }
        Map<CriterionId, CriterionView> criteria =
                rubrics.ofStudy(study).stream().collect(Collectors.toMap(CriterionView::id, Function.identity()));
        int sheets = (int) grades.stream().map(SentGrade::raterId).distinct().count();
        DoubleSummaryStatistics means = means(
                grades,
                own,
                new Scoring(criteria, studies.get(study).brief().rule().gate()));
        return Optional.of(new Showing(
                sheets,
                withinOne(grades, criteria),
                figure(means.getCount() > 1, means.getMax() - means.getMin()),
                figure(means.getCount() > 0, means.getMin())));
    }

    private static Figure withinOne(List<SentGrade> grades, Map<CriterionId, CriterionView> criteria) {
        int highest = criteria.values().stream()
                .mapToInt(CriterionView::highestLevel)
                .max()
                .orElse(1);
        List<Rating> ratings = grades.stream()
                .map(g -> new Rating(
                        g.answerId() + "/" + g.criterionId(), g.raterId().toString(), g.level()))
                .toList();
        return Figure.of(
                PercentAgreement.of(RatingMatrix.ofLevels(ratings, highest), 1).pooled());
    }

    /** Of the candidates' mean scores. */
    private static DoubleSummaryStatistics means(
            List<SentGrade> grades, Map<AnswerId, AnswerFacts> own, Scoring scoring) {
        record Place(CandidateId candidate, AccountId rater, AnswerId answer) {}
        Map<Place, List<SentGrade>> sheets = grades.stream()
                .collect(Collectors.groupingBy(
                        g -> new Place(Require.known(own, g.answerId()).candidateId(), g.raterId(), g.answerId())));
        return sheets.entrySet().stream()
                .flatMap(e -> scoring.score(e.getValue()).stream()
                        .mapToObj(s -> Map.entry(e.getKey().candidate(), s)))
                .collect(Collectors.groupingBy(Map.Entry::getKey, Collectors.averagingDouble(Map.Entry::getValue)))
                .values()
                .stream()
                .mapToDouble(Double::doubleValue)
                .summaryStatistics();
    }

    private static Figure figure(boolean defined, double value) {
        return Figure.of(defined ? Estimate.of(value) : Estimate.undefined(Reason.NO_DATA));
    }

    /** As the study's rule scores. */
    private record Scoring(Map<CriterionId, CriterionView> criteria, RuleTerms.@Nullable GateTerms gate) {
        OptionalDouble score(List<SentGrade> grades) {
            return OverallScore.of(grades.stream().map(this::grade).toList());
        }

        private CriterionGrade grade(SentGrade g) {
            CriterionView criterion = Require.known(criteria, g.criterionId());
            return RuleTerms.GateTerms.apply(
                    gate, criterion.key(), CriterionGrade.of(criterion.weight(), g.level(), criterion.highestLevel()));
        }
    }
}
