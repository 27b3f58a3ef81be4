package org.mossbank.server.acts;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;
import org.hibernate.annotations.Immutable;
import org.mossbank.core.decision.Outcome;

/** What came of an act. Only ever added. */
@Entity
@Immutable
class ActOutcome {
    @Id
    private UUID actId;

    @Enumerated(EnumType.STRING)
    private Outcome outcome;

    private String headline;
    private Instant workedOutAt;

    @SuppressWarnings("NullAway.Init")
    protected ActOutcome() {}

    static ActOutcome of(UUID act, OutcomeTeller.Told told, Instant now) {
        ActOutcome outcome = new ActOutcome();
        outcome.actId = act;
        outcome.outcome = told.outcome();
        outcome.headline = told.headline();
        outcome.workedOutAt = now;
        return outcome;
    }

    UUID actId() {
        return actId;
    }

    OutcomeTeller.Told told() {
        return new OutcomeTeller.Told(outcome, headline);
    }
}
