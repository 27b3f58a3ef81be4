package org.mossbank.server.run;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.answer.Outcome;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;

/**
 * A run, as its board shows it.
 *
 * @param reason      why it does not go on; absent if it does
 * @param spentCost   so far; where a service told no count, the most that it can have been
 * @param spentTokens so far, in the same way
 * @param stopping    whether something is still under way that is to end
 */
record RunView(
        UUID id,
        String key,
        String startedBy,
        Instant startedAt,
        int attempts,
        int followUps,
        @Nullable BigDecimal budgetCost,
        @Nullable Long budgetTokens,
        @Nullable String currency,
        Run.State state,
        @Nullable String reason,
        boolean stopping,
        BigDecimal spentCost,
        long spentTokens,
        List<CellView> cells) {

    /**
     * One cell of the board.
     *
     * @param turn          0 for the first reply, then the follow-ups
     * @param tries         of this turn
     * @param askedAt       since when it has been asked; absent unless it is
     * @param firstOutputMs milliseconds to the first output; absent until it came
     * @param tokensSoFar   of output, estimated
     * @param notBefore     until when it waits
     * @param notes         what happened, a line each
     * @param late          whether a reply came when the cell was written down already; it is kept beside what counts
     * @param outcome       of the answer, once there is one
     */
    record CellView(
            int place,
            PromptId promptId,
            CandidateId candidateId,
            int attempt,
            CellStage state,
            int turn,
            int tries,
            @Nullable Instant askedAt,
            @Nullable Long firstOutputMs,
            @Nullable Long tokensSoFar,
            @Nullable Instant notBefore,
            @Nullable String notes,
            boolean late,
            @Nullable Outcome outcome,
            @Nullable AnswerId answerId) {}
}
