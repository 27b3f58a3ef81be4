package org.mossbank.core.trial;

import java.util.List;
import java.util.Optional;

/**
 * What the trials of one code under one check say together.
 *
 * @param trials how each ended, in their order
 */
public record RepeatedTrials(List<TrialOutcome> trials) {
    public RepeatedTrials {
        trials = List.copyOf(trials);
    }

    /** Whether it passed once and did not another time: no outcome of it is to be trusted, the last as little as the first. */
    public boolean isFlaky() {
        long passed = trials.stream().filter(TrialOutcome::passed).count();
        return passed > 0 && passed < trials.size();
    }

    /** How it stands: passed if it always did, else as it ended worst. Empty if there is no trial. */
    public Optional<TrialOutcome> outcome() {
        return trials.stream().min(TrialOutcome::compareTo);
    }
}
