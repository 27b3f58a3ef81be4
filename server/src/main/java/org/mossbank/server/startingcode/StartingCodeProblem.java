package org.mossbank.server.startingcode;

import java.util.List;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;

/** Starting code that cannot be taken, with the field that is at fault. */
final class StartingCodeProblem {
    private StartingCodeProblem() {}

    static Problem of(String field, String message) {
        return new Problem(ProblemType.STARTING_CODE_REFUSED, "These files cannot be taken: " + message + ".")
                .withErrors(List.of(new Problem.FieldError(field, message)));
    }
}
