package org.mossbank.server.acts;

import java.util.Optional;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;

/**
 * Does what may change an outcome, and keeps what the outcome was before and became. Both are worked out while no
 * transaction is open; the act itself is kept within its own.
 */
@Service
public class OnRecord {
    private static final Logger LOG = LoggerFactory.getLogger(OnRecord.class);

    /** What the thread is doing. */
    private record Doing(StudyId study, Optional<OutcomeTeller.Told> before) {}

    private static final ThreadLocal<@Nullable Doing> DOING = new ThreadLocal<>();

    private final OutcomeTeller teller;
    private final Acts acts;

    OnRecord(OutcomeTeller teller, Acts acts) {
        this.teller = teller;
        this.acts = acts;
    }

    /** @throws Problem as the act does; 503 if the outcome before it cannot be worked out now */
    @PreAuthorize("@studyAccess.mayLead(#study)")
    public <T> T of(StudyId study, Supplier<T> act) {
        DOING.set(new Doing(study, teller.outcome(study)));
        T result;
        try {
            result = act.get();
        } finally {
            DOING.remove();
        }
        follow(study);
        return result;
    }

    /** The same for what yields nothing. */
    @PreAuthorize("@studyAccess.mayLead(#study)")
    public void of(StudyId study, Runnable act) {
        of(study, () -> {
            act.run();
            return true;
        });
    }

    /** The act is done and kept: whether what came of it can be worked out now is no reason to say otherwise. */
    private void follow(StudyId study) {
        try {
            teller.outcome(study).ifPresent(told -> acts.cameOf(study, told));
        } catch (Problem e) {
            LOG.info("what came of an act is worked out with the next one: {}", e.getMessage());
        }
    }

    static Optional<OutcomeTeller.Told> before(StudyId study) {
        Doing doing = DOING.get();
        if (doing == null || !doing.study.equals(study)) {
            throw new IllegalStateException("acts are done on record");
        }
        return doing.before;
    }
}
