package org.mossbank.server.grading;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CriterionId;

/** What raters gave the answers to one prompt, from the sheets sent in. */
record PromptGrades(List<RaterGrades> raters) {

    record RaterGrades(AccountId raterId, String name, List<AnswerGrades> answers) {}

    /**
     * @param number   at which place the answer stood on this rater's sheet, from 1
     * @param worksWhy why they say otherwise than trials do
     */
    record AnswerGrades(
            AnswerId answerId,
            int number,
            String reason,
            @Nullable Works works,
            String worksWhy,
            @Nullable Integer preference,
            List<PointVerdict> coverage,
            List<RemarkContent> remarks,
            List<CriterionGrade> grades) {}

    /** @param point which key point, from 0 */
    record PointVerdict(int point, Verdict verdict) {}

    record CriterionGrade(
            CriterionId criterionId,
            @Nullable Integer level,
            boolean notApplicable,
            @Nullable Confidence confidence) {}
}
