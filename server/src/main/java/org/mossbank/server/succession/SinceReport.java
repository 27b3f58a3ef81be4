package org.mossbank.server.succession;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.ruler.RulerShift;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.shared.Figure;

/**
 * What changed since the study before.
 *
 * @param title      of the study before
 * @param endedAt    when its grading ended
 * @param ruler      whether the same answers are scored as before; over all criteria that both have
 * @param byCriterion the same on each of them
 * @param candidates old and new ones on one scale
 * @param changes    what is otherwise than it was, in sentences
 */
record SinceReport(
        String title,
        Instant endedAt,
        RulerView ruler,
        List<CriterionRuler> byCriterion,
        List<OnOneScale> candidates,
        List<String> changes) {

    /**
     * @param prompts with an answer that was graded both times
     * @param answers of these
     * @param shift   points by which they are scored higher now
     * @param verdict against the margin of the rule
     * @param margin  of the rule
     */
    record RulerView(int prompts, int answers, Figure shift, RulerShift.Verdict verdict, double margin) {}

    /** @param shift points of 100 by which the same answers are scored higher on it now */
    record CriterionRuler(String criterion, String name, int answers, Figure shift) {}

    /**
     * A candidate then and now.
     *
     * @param candidateId absent for one that takes no part in this study
     * @param then        its score in the study before
     * @param moved       that score on today's ruler, with the ruler's own uncertainty
     * @param now         its score in this study
     */
    record OnOneScale(
            @Nullable CandidateId candidateId,
            String name,
            String version,
            @Nullable Figure then,
            @Nullable Figure moved,
            @Nullable Figure now) {}
}
