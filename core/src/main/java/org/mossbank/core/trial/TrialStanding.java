package org.mossbank.core.trial;

import java.util.Optional;
import java.util.OptionalInt;

/** Whether an answer's code works by trial: as it came, after a person's repair, or not. */
public sealed interface TrialStanding {
    /** It passes as it came. */
    record AsIs() implements TrialStanding {}

    /**
     * It passes once a person changed lines of it.
     *
     * @param lines of the smallest repair that passes; one that was replaced counts once
     */
    record AfterRepair(int lines) implements TrialStanding {}

    /** It does not pass, with no repair that was tried. */
    record Not() implements TrialStanding {}

    /**
     * @param asCame   what trials of the code as it came say
     * @param repaired lines of the smallest repair that always passed; empty if there is none
     * @return empty if the code as it came was not tried
     */
    static Optional<TrialStanding> of(RepeatedTrials asCame, OptionalInt repaired) {
        return asCame.outcome()
                .map(o -> o.passed()
                        ? new AsIs()
                        : repaired.isPresent() ? new AfterRepair(repaired.getAsInt()) : new Not());
    }
}
