package org.mossbank.server.acts;

import java.util.Optional;
import org.mossbank.core.decision.Outcome;
import org.mossbank.server.ids.StudyId;

/** Says what comes of a study as it stands. Answered by the module that recommends, so that none is asked by an earlier one. */
public interface OutcomeTeller {
    /** @param headline the outcome in a sentence */
    record Told(Outcome outcome, String headline) {}

    /** Nothing before a round was opened. Takes long; not within a transaction. */
    Optional<Told> outcome(StudyId study);
}
