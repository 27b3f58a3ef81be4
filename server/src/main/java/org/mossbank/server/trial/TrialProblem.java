package org.mossbank.server.trial;

import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;

/** Why nothing can be tried. */
final class TrialProblem {
    private TrialProblem() {}

    static Problem off(String why) {
        return new Problem(ProblemType.TRIALS_OFF, "No code is tried on this server, as " + why + ".");
    }

    static Problem notOffered(String toolchain) {
        return new Problem(ProblemType.TRIALS_OFF, "This server does not offer the toolchain " + toolchain + ".");
    }

    static Problem noPages(String why) {
        return new Problem(ProblemType.TRIALS_OFF, "No page is opened on this server, as " + why + ".");
    }

    static Problem noCheck() {
        return new Problem(ProblemType.NOT_READY, "No prompt that was chosen has a check.");
    }
}
