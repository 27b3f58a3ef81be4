package org.mossbank.server.trial;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.trial.TrialOutcome;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;

/**
 * All trials of a study, and how far they are.
 *
 * @param missing why this server runs none, in words; absent if it does
 * @param trials  in the order in which they are begun
 */
record TrialBoard(@Nullable String missing, List<TrialOfBoard> trials) {
    TrialBoard {
        trials = List.copyOf(trials);
    }

    /**
     * One trial.
     *
     * @param turn         0 for the first reply, then the follow-ups
     * @param repetition   of one code under one check, from 1
     * @param isCurrent    whether the check is still the one that it was tried by
     * @param outcome      absent until it has ended
     * @param passed       of what was asked, builds left out
     * @param asked        so many
     * @param millis       that its steps took together
     * @param warnings     of the compiler
     * @param deprecations warnings of what is not to be used any more
     * @param broken       tests of a repository that passed before
     * @param mended       tests of it that failed before
     */
    record TrialOfBoard(
            UUID id,
            PromptId promptId,
            AnswerId answerId,
            int turn,
            int repetition,
            boolean isCurrent,
            Trial.State state,
            @Nullable TrialOutcome outcome,
            int passed,
            int asked,
            long millis,
            long memoryKb,
            int warnings,
            int deprecations,
            int broken,
            int mended,
            @Nullable Instant endedAt) {
        static TrialOfBoard of(TrialRepository.Outline t, boolean isCurrent) {
            return new TrialOfBoard(
                    t.id(),
                    t.promptId(),
                    t.answerId(),
                    t.turn(),
                    t.repetition(),
                    isCurrent,
                    t.state(),
                    t.outcome(),
                    t.passed(),
                    t.asked(),
                    t.millis(),
                    t.memoryKb(),
                    t.warnings(),
                    t.deprecations(),
                    t.broken(),
                    t.mended(),
                    t.endedAt());
        }
    }

    /** Trials by how far they are: little to ask for again and again. */
    record TrialsSoFar(long waiting, long running, long ended, long stopped) {
        static TrialsSoFar of(List<TrialRepository.CountOf> counts) {
            Map<Trial.State, Long> byState = counts.stream()
                    .collect(Collectors.toMap(TrialRepository.CountOf::state, TrialRepository.CountOf::trials));
            return new TrialsSoFar(
                    byState.getOrDefault(Trial.State.WAITING, 0L),
                    byState.getOrDefault(Trial.State.RUNNING, 0L),
                    byState.getOrDefault(Trial.State.ENDED, 0L),
                    byState.getOrDefault(Trial.State.STOPPED, 0L));
        }

        boolean isMoving() {
            return waiting + running > 0;
        }
    }
}
