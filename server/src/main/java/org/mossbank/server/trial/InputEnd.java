package org.mossbank.server.trial;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.trial.RunEnd;
import org.mossbank.core.trial.TrialOutcome;

/**
 * What an answer's program did with an input of somebody's own.
 *
 * @param notBuilt why there is no program; absent if there is one
 * @param end      how the program came to its end; absent if there is none
 * @param status   that it ended with
 * @param output   its standard output, cut at a stated size
 * @param errors   its other output, or what its build wrote
 */
public record InputEnd(
        @Nullable TrialOutcome notBuilt, RunEnd.@Nullable End end, int status, String output, String errors) {

    /**
     * @param arguments after the command, each as it is
     * @param input     standard input
     */
    public record Given(List<String> arguments, String input) {
        public Given {
            arguments = List.copyOf(arguments);
        }
    }

    static InputEnd notBuilt(TrialOutcome why, String log) {
        return new InputEnd(why, null, 0, "", TrialLog.shown(log));
    }

    static InputEnd of(RunEnd end) {
        return new InputEnd(null, end.end(), end.status(), TrialLog.shown(end.output()), TrialLog.shown(end.errors()));
    }
}
