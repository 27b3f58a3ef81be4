package org.mossbank.server.cost;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.tradeoff.TeamCost;
import org.mossbank.server.candidate.TeamUse;
import org.mossbank.server.ids.CandidateId;

/**
 * What a month would cost the team.
 *
 * @param use      as it was asked about
 * @param stated   as the study keeps it; absent where nothing is stated
 * @param tasks    of all people in a month
 * @param currency what amounts are in, where all are in the same
 * @param rows     one a candidate, in the study's order
 * @param front    who is not outdone in score and monthly cost, of those that can be taken and stop nothing
 */
public record TeamCostReport(
        TeamUse use,
        @Nullable StatedUseView stated,
        double tasks,
        @Nullable String currency,
        List<TeamRow> rows,
        List<CandidateId> front) {

    /**
     * A stated use, with who said so.
     *
     * @param use as it was stated
     */
    public record StatedUseView(TeamUse use, java.time.Instant at, String by) {}

    /**
     * @param ways         that which stops least first, then the cheapest; none where no price is known
     * @param capUncounted whether its plan has a cap in tokens that cannot be told in tasks, and is not priced
     */
    public record TeamRow(
            CandidateId candidateId, String name, boolean ruledOut, List<PaidView> ways, boolean capUncounted) {}

    /**
     * @param way     how it is paid for
     * @param monthly money a month
     * @param done    tasks that get done
     * @param stopped tasks that the plan's cap stops
     * @param aTask   money for a task that gets done; absent where none does
     */
    public record PaidView(
            TeamCost.Way way,
            double monthly,
            String currency,
            double done,
            double stopped,
            @Nullable Double aTask) {}
}
