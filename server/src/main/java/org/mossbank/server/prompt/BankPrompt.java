package org.mossbank.server.prompt;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;

/** A prompt that the team keeps over studies; what it says stands in its versions. */
@Entity
class BankPrompt {
    @Id
    private UUID id;

    private Instant createdAt;

    @SuppressWarnings("NullAway.Init")
    protected BankPrompt() {}

    static BankPrompt of(Instant now) {
        BankPrompt prompt = new BankPrompt();
        prompt.id = UUID.randomUUID();
        prompt.createdAt = now;
        return prompt;
    }

    UUID id() {
        return id;
    }
}
