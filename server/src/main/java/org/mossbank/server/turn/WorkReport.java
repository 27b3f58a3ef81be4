package org.mossbank.server.turn;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.turns.TurnVerdict;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.shared.Figure;

/**
 * How much works, and how it came to.
 *
 * @param candidates in the study's order
 * @param parts      over all kinds first, then by kind
 * @param courses    answers that were followed up, as many as can be shown
 * @param more       how many were left out
 */
record WorkReport(List<WorkCandidate> candidates, List<WorkPart> parts, List<CourseView> courses, int more) {
    record WorkCandidate(CandidateId id, String name) {}

    /**
     * Answers to prompts of one kind, or of all.
     *
     * @param kindId absent for all kinds
     * @param kind   its name; empty for all
     * @param rows   one a candidate
     */
    record WorkPart(@Nullable KindId kindId, String kind, List<WorkRow> rows) {}

    /**
     * What most of the raters who tried an answer say of it, and how it went from turn to turn.
     *
     * @param answers  that somebody graded
     * @param said     of these, those that somebody tried
     * @param asIs     that work as they are
     * @param repaired that work after a trivial repair
     * @param not      that do not, and said neither
     * @param gaveUp   that do not, and say so themselves
     * @param saidDone that do not, and say that they do
     * @param split    of which no verdict has more than half
     * @param share    of those tried, those that work as they are, with an exact interval
     * @param turns    how they went from turn to turn
     */
    record WorkRow(
            CandidateId candidateId,
            int answers,
            int said,
            int asIs,
            int repaired,
            int not,
            int gaveUp,
            int saidDone,
            int split,
            Figure share,
            TurnCounts turns) {}

    /**
     * @param toWork  answers that came to work after so many follow-ups, from none on
     * @param never   that never did, each of their replies looked at
     * @param unknown of which too little is known
     * @param mended  follow-ups after which an answer does what it did not before
     * @param broke   after which it does not what it did before
     * @param stuck   after which it still does not
     * @param mean    follow-ups to a working answer, over those that came to it
     */
    record TurnCounts(List<Integer> toWork, int never, int unknown, int mended, int broke, int stuck, Figure mean) {}

    /**
     * An answer that was followed up.
     *
     * @param marks one a reply, the first reply's first
     */
    record CourseView(
            AnswerId answerId,
            PromptId promptId,
            String title,
            CandidateId candidateId,
            int attempt,
            List<TurnMark> marks) {}

    /**
     * @param verdict  absent where nobody said
     * @param byRaters whether it is most raters' word, given for the last reply where the lead said nothing
     */
    record TurnMark(@Nullable TurnVerdict verdict, boolean byRaters) {}
}
