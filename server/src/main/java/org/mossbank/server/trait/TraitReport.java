package org.mossbank.server.trait;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.grading.RemarkContent;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.shared.Figure;

/**
 * What candidates are good and bad at, by what raters said beside levels. The unit is the answer: one that several raters said
 * the same of counts once.
 *
 * @param candidates in the study's order
 * @param parts      over all kinds first, then by kind
 */
record TraitReport(List<TraitCandidate> candidates, List<TraitPart> parts) {
    record TraitCandidate(CandidateId id, String name) {}

    /**
     * What was said of answers to prompts of one kind, or of all.
     *
     * @param kindId    absent for all kinds
     * @param kind      its name; empty for all
     * @param sentences one a candidate of whom something was said, by rule
     * @param rows      most often said first
     * @param more      traits that are left out, said more seldom
     * @param points    key points by candidate; none where no prompt has any
     */
    record TraitPart(
            @Nullable KindId kindId,
            String kind,
            List<String> sentences,
            List<TraitRow> rows,
            int more,
            List<PointsCell> points) {}

    /**
     * A trait with a cell a candidate.
     *
     * @param stance whether it was said as credit or as fault
     * @param trait  as the rubric or a rater calls it
     * @param cells  in the order of the candidates
     */
    record TraitRow(RemarkContent.Stance stance, String trait, List<TraitCell> cells) {}

    /**
     * @param answers  of which it was said
     * @param agreed   of those, by more than one rater
     * @param of       answers that were graded
     * @param share    of them, with an exact interval
     * @param examples a few of those answers, those that most raters said it of first
     */
    record TraitCell(
            CandidateId candidateId, int answers, int agreed, int of, Figure share, List<TraitExample> examples) {}

    /** An answer, to be looked at. */
    record TraitExample(AnswerId answerId, PromptId promptId, String title, int raters) {}

    /**
     * @param of    answers whose key points raters looked for
     * @param share of its prompt's key points that an answer covers, half for a part of one: the mean over answers, with an
     *     interval over answers
     */
    record PointsCell(CandidateId candidateId, int of, Figure share) {}
}
