package org.mossbank.server.cost;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.shared.Figure;

/**
 * Quality against what it takes. People's own answers are not priced.
 *
 * @param currency what amounts are in; absent where none is known, or they differ
 * @param why      why amounts cannot be compared; absent where they can
 * @param prompts  that all of them answered; means are over these
 * @param rows     one a candidate, in the study's order
 * @param fronts   who is not outdone in score and measure together, of those that can be taken
 * @param dots     one a candidate and prompt, as many as can be drawn
 * @param more     how many were left out
 */
public record CostReport(
        @Nullable String currency,
        @Nullable String why,
        int prompts,
        List<CostRow> rows,
        List<CostFront> fronts,
        List<CostDot> dots,
        int more) {

    /**
     * What a candidate's answers took.
     *
     * @param ruledOut     whether a fact says that it cannot be taken
     * @param score        of 100, as it stands over all
     * @param cost         of an answer to a prompt
     * @param time         milliseconds of an answer to a prompt
     * @param tokens       of an answer to a prompt, in and out
     * @param answers      all of them
     * @param empty        that left nothing to grade
     * @param wasted       what was paid for those
     * @param judged       answers of which raters said whether they work, and those that left nothing
     * @param working      of these, those that work as they are, by most of the raters who tried them
     * @param oneThatWorks money for one answer that works: all that was paid, for those that do not too
     */
    public record CostRow(
            CandidateId candidateId,
            String name,
            boolean ruledOut,
            Figure score,
            Figure cost,
            Figure time,
            Figure tokens,
            int answers,
            int empty,
            Figure wasted,
            int judged,
            int working,
            Figure oneThatWorks) {}

    /** What quality is held against. */
    public enum Measure {
        COST,
        TIME,
        /** Money for one answer that works. */
        ONE_THAT_WORKS
    }

    /**
     * Who is not outdone: nobody else is at least as good and at most as dear.
     *
     * @param measure      that quality is held against
     * @param candidateIds in the study's order
     */
    public record CostFront(Measure measure, List<CandidateId> candidateIds) {}

    /**
     * A candidate's answers to a prompt.
     *
     * @param score mean of 100 over attempts
     * @param cost  of an attempt; absent where it is not known
     * @param ms    of an attempt; absent where it was not measured
     */
    public record CostDot(
            CandidateId candidateId,
            PromptId promptId,
            String title,
            double score,
            @Nullable Double cost,
            @Nullable Double ms) {}
}
