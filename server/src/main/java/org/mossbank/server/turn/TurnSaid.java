package org.mossbank.server.turn;

import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import java.io.Serializable;
import java.time.Instant;
import org.mossbank.core.turns.TurnVerdict;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.StudyId;

/** What a lead found of one reply. */
@Entity
class TurnSaid {
    /** @param turn 0 for the first reply, then the follow-ups */
    @Embeddable
    record Key(AnswerId answerId, int turn) implements Serializable {}

    @EmbeddedId
    private Key key;

    private StudyId studyId;

    @Enumerated(EnumType.STRING)
    private TurnVerdict verdict;

    private Instant saidAt;
    private String saidBy;

    /** Of the reply that it was said of: it holds of no other. */
    private String digest;

    @SuppressWarnings("NullAway.Init")
    protected TurnSaid() {}

    static TurnSaid of(StudyId study, Turns.Said said, String digest) {
        TurnSaid turn = new TurnSaid();
        turn.key = new Key(said.answerId(), said.turn());
        turn.studyId = study;
        turn.digest = digest;
        turn.say(said.verdict(), said.at(), said.by());
        return turn;
    }

    void say(TurnVerdict found, Instant at, String by) {
        verdict = found;
        saidAt = at;
        saidBy = by;
    }

    boolean isOf(String replyDigest) {
        return digest.equals(replyDigest);
    }

    int turn() {
        return key.turn();
    }

    Turns.Said view() {
        return new Turns.Said(key.answerId(), key.turn(), verdict, saidAt, saidBy);
    }
}
