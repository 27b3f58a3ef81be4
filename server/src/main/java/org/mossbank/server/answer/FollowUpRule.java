package org.mossbank.server.answer;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Version;
import org.mossbank.server.ids.StudyId;

/** When to give up in a study: the most follow-ups that an answer may get. */
@Entity
class FollowUpRule {
    @Id
    private StudyId studyId;

    private int most;

    @Version
    private long version;

    @SuppressWarnings("NullAway.Init")
    protected FollowUpRule() {}

    static FollowUpRule of(StudyId studyId, int most) {
        FollowUpRule rule = new FollowUpRule();
        rule.studyId = studyId;
        rule.most = most;
        return rule;
    }

    void write(int newMost) {
        most = newMost;
    }

    int most() {
        return most;
    }

    long version() {
        return version;
    }
}
