package org.mossbank.server.trial;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.mossbank.core.trial.RepeatedTrials;
import org.mossbank.core.trial.TrialStanding;
import org.mossbank.core.trial.TrialSummary;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.trial.Repairs.RepairMade;

/**
 * What trials say of an answer by the check as it is now.
 *
 * @param turns   those that were tried, in their order
 * @param repairs of what the answer ends in, oldest first
 */
public record TriedAnswer(PromptId promptId, AnswerId answerId, List<TurnTried> turns, List<RepairMade> repairs) {
    public TriedAnswer {
        turns = List.copyOf(turns);
        repairs = List.copyOf(repairs);
    }

    /**
     * The trials of one turn.
     *
     * @param turn         0 for the first reply, then the follow-ups
     * @param worst        of those trials
     * @param warnings     of the compiler, in that one
     * @param deprecations warnings of what is not to be used any more
     * @param broken       tests of a repository that passed before, in that one
     * @param mended       tests of it that failed before
     */
    public record TurnTried(
            int turn,
            RepeatedTrials trials,
            TrialSummary worst,
            int warnings,
            int deprecations,
            int broken,
            int mended) {}

    /** Of the last turn that was tried. */
    public Optional<TurnTried> last() {
        return turns.stream().max(Comparator.comparingInt(TurnTried::turn));
    }

    /** Empty if nothing of it was tried. */
    public Optional<TrialStanding> standing() {
        return last().flatMap(t -> TrialStanding.of(
                t.trials,
                repairs.stream()
                        .filter(r -> r.summary().outcome().passed())
                        .mapToInt(RepairMade::lines)
                        .min()));
    }
}
