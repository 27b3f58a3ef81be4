package org.mossbank.server.evidence;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.StudyId;

/** When a rater first saw the trials of an answer, and what they had graded it by then. */
@Entity
class TrialSeen {
    @Id
    private SheetAnswerId sheetAnswerId;

    private StudyId studyId;
    private AccountId raterId;
    private AnswerId answerId;
    private Instant seenAt;

    /** On the criterion that trials speak for. */
    private @Nullable Integer level;

    @SuppressWarnings("NullAway.Init")
    protected TrialSeen() {}

    static TrialSeen of(StudyId study, SheetAnswerId on, Seen seen) {
        TrialSeen row = new TrialSeen();
        row.sheetAnswerId = on;
        row.studyId = study;
        row.raterId = seen.raterId;
        row.answerId = seen.answerId;
        row.seenAt = seen.at;
        row.level = seen.level;
        return row;
    }

    SheetAnswerId sheetAnswerId() {
        return sheetAnswerId;
    }

    /** @param level that they had given by then; absent if none */
    record Seen(
            AccountId raterId,
            AnswerId answerId,
            Instant at,
            @Nullable Integer level) {}

    Seen seen() {
        return new Seen(raterId, answerId, seenAt, level);
    }
}
