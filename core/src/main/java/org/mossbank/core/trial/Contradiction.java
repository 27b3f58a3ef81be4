package org.mossbank.core.trial;

import java.util.Optional;
import org.mossbank.core.estimate.Require;

/** Where what raters say of an answer's correctness and what its trials say cannot both be right. It is shown, and corrects nothing. */
public enum Contradiction {
    /** A grade at the top for code that does not pass. */
    TOP_GRADE_THOUGH_IT_FAILS,
    /** A grade at the bottom for code that passes all. */
    LOWEST_GRADE_THOUGH_IT_PASSES;

    /**
     * Of one grade on a scale of so many levels: the top level against code that did not even come to run or ran otherwise than it
     * must, the lowest against code that always passed.
     *
     * @param level  from 1, the lowest
     * @param levels on the scale
     * @param trials of the answer as it came
     */
    public static Optional<Contradiction> of(int level, int levels, RepeatedTrials trials) {
        Require.atLeast("levels", 2, levels);
        Require.that(level >= 1 && level <= levels, "level", "is on the scale of " + levels, level);
        if (trials.outcome().isEmpty() || trials.isFlaky()) {
            return Optional.empty();
        }
        boolean passed = trials.outcome().get().passed();
        if (level == levels && !passed) {
            return Optional.of(TOP_GRADE_THOUGH_IT_FAILS);
        }
        return level == 1 && passed ? Optional.of(LOWEST_GRADE_THOUGH_IT_PASSES) : Optional.empty();
    }
}
