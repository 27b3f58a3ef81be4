package org.mossbank.server.progress;

import org.jspecify.annotations.Nullable;

/**
 * How far a step of a study is.
 *
 * @param done    share that is done, in [0, 1]
 * @param line    one line of state, for example "42 of 60 sheets"
 * @param missing what is missing before the step is ready; absent if nothing is
 */
public record StepState(
        Step step, double done, String line, @Nullable String missing) {
    public static StepState done(Step step, String line) {
        return new StepState(step, 1, line, null);
    }
}
