package org.mossbank.server.expected;

import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import java.io.Serializable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.StudyId;

/** Which candidate a lead takes somebody's words for. */
@Entity
class WordsTaken {
    @Embeddable
    record Key(StudyId studyId, AccountId accountId) implements Serializable {}

    @EmbeddedId
    private Key key;

    private CandidateId candidateId;

    @SuppressWarnings("NullAway.Init")
    protected WordsTaken() {}

    static WordsTaken of(StudyId study, AccountId account, CandidateId candidate) {
        WordsTaken match = new WordsTaken();
        match.key = new Key(study, account);
        match.candidateId = candidate;
        return match;
    }

    void take(CandidateId other) {
        candidateId = other;
    }

    AccountId accountId() {
        return key.accountId();
    }

    CandidateId candidateId() {
        return candidateId;
    }
}
