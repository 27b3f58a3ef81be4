package org.mossbank.server.memo;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;
import org.hibernate.annotations.Immutable;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.memo.document.EntryView;

/** What is added to a memo after it was signed. Only ever added. */
@Entity
@Immutable
class MemoEntry {
    @Id
    private UUID id;

    private UUID memoId;

    @Enumerated(EnumType.STRING)
    private EntryView.Sort sort;

    private String words;
    private String decidedBy;

    @Nullable
    private AccountId authorId;

    private String addedBy;
    private Instant addedAt;

    @SuppressWarnings("NullAway.Init")
    protected MemoEntry() {}

    static MemoEntry of(UUID memo, MemoViews.AddEntry added, AccountId author, String name, Instant now) {
        MemoEntry entry = new MemoEntry();
        entry.id = UUID.randomUUID();
        entry.memoId = memo;
        entry.sort = added.sort();
        entry.words = added.words().strip();
        entry.decidedBy = added.decidedBy().strip();
        entry.authorId = author;
        entry.addedBy = name;
        entry.addedAt = now;
        return entry;
    }

    /** As an archive brings it; who added it is known there by name alone. */
    static MemoEntry of(UUID memo, EntryView brought) {
        MemoEntry entry = new MemoEntry();
        entry.id = UUID.randomUUID();
        entry.memoId = memo;
        entry.sort = brought.sort();
        entry.words = brought.words();
        entry.decidedBy = brought.decidedBy();
        entry.addedBy = brought.by();
        entry.addedAt = brought.at();
        return entry;
    }

    boolean isSignatureOf(AccountId account) {
        return sort == EntryView.Sort.COUNTERSIGNED && account.equals(authorId);
    }

    EntryView view() {
        return new EntryView(sort, words, decidedBy, addedBy, addedAt);
    }
}
