package org.mossbank.server.trial;

import java.util.EnumMap;
import java.util.Map;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** How many trials of a study are how far. */
@Service
@Transactional(readOnly = true)
class TrialCounts {
    private final TrialRepository trials;

    TrialCounts(TrialRepository trials) {
        this.trials = trials;
    }

    /** Trials by how far they are. */
    record TrialsSoFar(long waiting, long running, long ended, long stopped) {
        boolean isMoving() {
            return waiting + running > 0;
        }
    }

    /** For whoever was let in before. */
    @SystemOnly
    public TrialsSoFar of(StudyId study) {
        Map<Trial.State, Long> counts = new EnumMap<>(Trial.State.class);
        trials.counts(study).forEach(c -> counts.put(c.state(), c.trials()));
        return new TrialsSoFar(
                counts.getOrDefault(Trial.State.WAITING, 0L),
                counts.getOrDefault(Trial.State.RUNNING, 0L),
                counts.getOrDefault(Trial.State.ENDED, 0L),
                counts.getOrDefault(Trial.State.STOPPED, 0L));
    }
}
