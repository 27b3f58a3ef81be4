package org.mossbank.server.grading;

import java.util.Optional;
import org.mossbank.core.turns.TurnVerdict;

/** Whether an answer's code works, as its rater found it. */
public enum Works {
    AS_IS,
    /** After a trivial repair. */
    AFTER_REPAIR,
    NOT,
    /** It does not, and says so itself. */
    GAVE_UP,
    /** It does not, and says that it does. */
    SAID_DONE,
    NOT_TRIED;

    /** The same as it is said of a reply; empty where it works only once repaired, or was not tried. */
    public Optional<TurnVerdict> verdict() {
        return switch (this) {
            case AS_IS -> Optional.of(TurnVerdict.DOES);
            case NOT -> Optional.of(TurnVerdict.DOES_NOT);
            case GAVE_UP -> Optional.of(TurnVerdict.GAVE_UP);
            case SAID_DONE -> Optional.of(TurnVerdict.SAID_DONE);
            case AFTER_REPAIR, NOT_TRIED -> Optional.empty();
        };
    }
}
