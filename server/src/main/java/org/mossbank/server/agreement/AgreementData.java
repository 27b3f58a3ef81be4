package org.mossbank.server.agreement;

import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BinaryOperator;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.mossbank.core.agreement.Coefficient;
import org.mossbank.core.agreement.Rating;
import org.mossbank.core.agreement.RatingMatrix;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.RepeatDistance;
import org.mossbank.server.grading.SentGrade;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.prompt.KindView;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.study.StudyView;

/** All that the figures of agreement are computed from. */
record AgreementData(
        StudyView study,
        List<KindView> kinds,
        List<CriterionView> criteria,
        Map<AnswerId, PromptView> promptOfAnswer,
        Map<AnswerId, CandidateId> candidateOfAnswer,
        Map<AccountId, AccountView> raters,
        List<SentGrade> grades,
        List<SentGrade> repeats,
        List<RepeatDistance> repeatDistances,
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
        return RatingMatrix.ofLevels(ratings(criterion, part), criterion.highestLevel());
    }

    /** All grades on each criterion. */
    Map<CriterionId, RatingMatrix> matrices() {
        return criteria.parallelStream().collect(Collectors.toMap(CriterionView::id, c -> matrix(c, grades)));
    }

    List<Rating> ratings(CriterionView criterion, List<SentGrade> part) {
        Map<AnswerId, String> answers = new HashMap<>();
        Map<AccountId, String> people = new HashMap<>();
        return part.stream()
                .filter(g -> g.criterionId().equals(criterion.id()))
                .map(g -> new Rating(
                        answers.computeIfAbsent(g.answerId(), AnswerId::toString),
                        people.computeIfAbsent(g.raterId(), AccountId::toString),
                        g.level()))
                .toList();
    }

    /** Wordings of one prompt belong together like the answers to one wording. */
    Coefficients coefficients(RatingMatrix matrix) {
        return Coefficients.of(matrix, this::family);
    }

    boolean isOf(KindView kind, String answer) {
        return prompt(answer).kind().id().equals(kind.id());
    }

    List<SentGrade> within(KindView kind) {
        return grades.stream()
                .filter(g ->
                        Require.known(promptOfAnswer, g.answerId()).kind().id().equals(kind.id()))
                .toList();
    }

    /** One wording of each prompt, to call it by. */
    Map<String, PromptView> families() {
        return promptOfAnswer.values().stream()
                .collect(Collectors.toMap(
                        p -> p.family().toString(),
                        Function.identity(),
                        BinaryOperator.minBy(Comparator.comparing(PromptView::key))));
    }

    /** The prompt of an answer by its id, wordings of one counted as one. */
    String family(String answer) {
        return prompt(answer).family().toString();
    }
}
