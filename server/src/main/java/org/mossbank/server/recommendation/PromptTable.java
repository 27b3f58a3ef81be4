package org.mossbank.server.recommendation;

import java.math.BigDecimal;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.prompt.PromptContent;
import org.mossbank.server.prompt.Wording;

/** What each candidate made of each prompt, of all that counts. Kept whole; a window of it is shown. */
record PromptTable(List<RecommendationReport.CandidateName> candidates, List<PromptRow> rows) {
    /**
     * A prompt.
     *
     * @param size    how much of the code it is about; absent where nobody said
     * @param areas   such as back end
     * @param wording absent for one that stands alone
     * @param cells   one a candidate, in the order of the candidates
     * @param mean    of the cells' scores; absent without any
     * @param spread  points between the highest and the lowest of the cells; absent with fewer than two
     */
    record PromptRow(
            PromptId promptId,
            String title,
            KindId kindId,
            String kind,
            PromptContent.@Nullable TaskSize size,
            List<String> areas,
            @Nullable Wording wording,
            List<PromptCell> cells,
            @Nullable Double mean,
            @Nullable Double spread) {}

    /**
     * A candidate's attempts at a prompt, or at several where it is a sum.
     *
     * @param score     mean of 100 over attempts, as the rule scores, without adjustment; absent without grades
     * @param answers   attempts
     * @param complete  how many of them came whole
     * @param asIs      raters' words that the code works as it is
     * @param repaired  the same, after a trivial repair
     * @param not       the same, that it does not
     * @param tried     attempts whose code was tried by its prompt's check
     * @param passed    how many of those pass it as they came, each time
     * @param points    raters' verdicts on key points
     * @param covered   how many of those found the point; half for a part of it
     * @param followUps after first replies
     * @param cost      of all attempts; absent where one has none, or currencies differ
     * @param totalMs   of all attempts; absent where one was not measured
     * @param answerId  of the first attempt; absent where there is none, and in a sum
     */
    record PromptCell(
            CandidateId candidateId,
            @Nullable Double score,
            int answers,
            int complete,
            int asIs,
            int repaired,
            int not,
            int tried,
            int passed,
            int points,
            double covered,
            int followUps,
            @Nullable BigDecimal cost,
            @Nullable String currency,
            @Nullable Long totalMs,
            @Nullable AnswerId answerId) {}
}
