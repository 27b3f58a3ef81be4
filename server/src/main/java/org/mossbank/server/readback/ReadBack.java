package org.mossbank.server.readback;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.PromptId;

/** What a second developer thinks a prompt asks, and what the lead made of it. */
@Entity
class ReadBack {
    @Id
    private UUID id;

    private PromptId promptId;
    private AccountId readerId;
    private Instant askedAt;

    @Nullable
    private String answer;

    @Nullable
    private Instant answeredAt;

    @Nullable
    @Enumerated(EnumType.STRING)
    private ReadBackVerdict verdict;

    @SuppressWarnings("NullAway.Init")
    protected ReadBack() {}

    static ReadBack of(ReadBacks.ReadBackRecord start) {
        ReadBack readBack = new ReadBack();
        readBack.id = UUID.randomUUID();
        readBack.promptId = start.promptId();
        readBack.readerId = start.readerId();
        readBack.askedAt = start.askedAt();
        readBack.answer = start.answer();
        readBack.answeredAt = start.answeredAt();
        readBack.verdict = start.verdict();
        return readBack;
    }

    /** A new answer makes an earlier verdict void. */
    void answer(String text, Instant now) {
        answer = text;
        answeredAt = now;
        verdict = null;
    }

    void judge(@Nullable ReadBackVerdict made) {
        verdict = made;
    }

    UUID id() {
        return id;
    }

    PromptId promptId() {
        return promptId;
    }

    AccountId readerId() {
        return readerId;
    }

    boolean isAnswered() {
        return answer != null;
    }

    ReadBacks.ReadBackRecord toRecord() {
        return new ReadBacks.ReadBackRecord(promptId, readerId, askedAt, answer, answeredAt, verdict);
    }
}
