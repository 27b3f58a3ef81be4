package org.mossbank.server.audit;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.StudyId;

/**
 * One line of what was done.
 *
 * @param number  counts up over all studies; gaps mean nothing
 * @param who     sign-in name; empty where the server did it, or somebody whom nobody knows
 * @param address where the request came from; absent where there was none
 * @param studyId the study it was done in, if any; it may be gone by now
 * @param subject what it was done to, in words; left out where whoever reads may not see into the study
 */
record AuditEventView(
        long number,
        Instant at,
        AuditSort sort,
        String who,
        @Nullable String address,
        @Nullable StudyId studyId,
        @Nullable String subject) {

    /** As somebody reads it who is not of the study. */
    AuditEventView withoutContent() {
        return studyId == null ? this : new AuditEventView(number, at, sort, who, address, studyId, null);
    }
}
