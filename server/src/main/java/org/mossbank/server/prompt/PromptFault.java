package org.mossbank.server.prompt;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.PromptId;

/** That a prompt turned out faulty; it counts nowhere until that is taken back. */
@Entity
class PromptFault {
    @Id
    private UUID id;

    private PromptId promptId;
    private Instant foundAt;
    private String foundBy;
    private String reason;

    @Nullable
    private Instant takenBackAt;

    @SuppressWarnings("NullAway.Init")
    protected PromptFault() {}

    static PromptFault of(PromptId promptId, PromptView.FaultView start) {
        PromptFault fault = new PromptFault();
        fault.id = UUID.randomUUID();
        fault.promptId = promptId;
        fault.foundAt = start.at();
        fault.foundBy = start.by();
        fault.reason = start.reason();
        return fault;
    }

    void takeBack(Instant now) {
        takenBackAt = now;
    }

    PromptId promptId() {
        return promptId;
    }

    PromptView.FaultView view() {
        return new PromptView.FaultView(foundAt, foundBy, reason);
    }
}
