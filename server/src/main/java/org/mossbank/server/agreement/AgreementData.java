package org.mossbank.server.agreement;

import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BinaryOperator;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
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
        RatingMatrix.Accumulator gathered = RatingMatrix.Accumulator.ofLevels(criterion.highestLevel());
        Written<AnswerId> answers = new Written<>(AnswerId::toString);
        Written<AccountId> people = new Written<>(AccountId::toString);
        for (SentGrade grade : part) {
            if (grade.criterionId().equals(criterion.id())) {
                gathered.add(answers.of(grade.answerId()), people.of(grade.raterId()), grade.level());
            }
        }
        return gathered.snapshot();
    }

    /** Ids as the core knows them: each written once, as hundreds of thousands of grades share them. */
    static final class Written<T> {
        private final Function<T, String> how;
        private final Map<T, String> known = new HashMap<>();

        @Nullable
        private T last;

        private String written = "";

        Written(Function<T, String> how) {
            this.how = how;
        }

        String of(T id) {
            if (!id.equals(last)) {
                last = id;
                written = known.computeIfAbsent(id, how);
            }
            return written;
        }
    }

    /** All grades on each criterion. */
    Map<CriterionId, RatingMatrix> matrices() {
        return criteria.parallelStream().collect(Collectors.toMap(CriterionView::id, c -> matrix(c, grades)));
    }

    List<Rating> ratings(CriterionView criterion, List<SentGrade> part) {
        Written<AnswerId> answers = new Written<>(AnswerId::toString);
        Written<AccountId> people = new Written<>(AccountId::toString);
        return part.stream()
                .filter(g -> g.criterionId().equals(criterion.id()))
                .map(g -> new Rating(answers.of(g.answerId()), people.of(g.raterId()), g.level()))
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
