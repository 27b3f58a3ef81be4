package org.mossbank.server.progress;

import org.mossbank.server.ids.StudyId;

/** What the module for one step says about it; later modules implement it, so that none is asked by an earlier one. */
public interface StepReport {
    Step step();

    /** Asked outside any transaction: some of it takes time to work out. */
    StepState stateOf(StudyId study);

    /** What must be there before grading may open, each thing in words; empty if nothing is missing. */
    default java.util.List<String> missingBeforeRound(StudyId study) {
        return java.util.List.of();
    }
}
