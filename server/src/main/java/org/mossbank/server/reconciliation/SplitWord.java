package org.mossbank.server.reconciliation;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;
import org.mossbank.server.ids.AccountId;

/** What somebody says in the talk about a split; never changed. */
@Entity
class SplitWord {
    @Id
    private UUID id;

    private UUID reconciliationId;
    private AccountId authorId;
    private String words;
    private Instant saidAt;
    private boolean namesKnown;

    @SuppressWarnings("NullAway.Init")
    protected SplitWord() {}

    /** @param id as the client made it, so that what is sent twice is said once */
    static SplitWord of(UUID id, UUID reconciliation, Reconciliations.Word word) {
        SplitWord said = new SplitWord();
        said.id = id;
        said.reconciliationId = reconciliation;
        said.authorId = word.author();
        said.words = word.words();
        said.saidAt = word.at();
        said.namesKnown = word.namesKnown();
        return said;
    }

    UUID id() {
        return id;
    }

    UUID reconciliationId() {
        return reconciliationId;
    }

    Reconciliations.Word word() {
        return new Reconciliations.Word(authorId, words, saidAt, namesKnown);
    }
}
