package org.mossbank.server.audit;

import org.mossbank.server.ids.StudyId;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;

/** Writes down what somebody takes away, once they were let have it. */
@Service
public class TakenAway {
    private final Audit audit;

    TakenAway(Audit audit) {
        this.audit = audit;
    }

    @PreAuthorize("@studyAccess.mayEnter(#study)")
    public void of(StudyId study, AuditSort sort, String what) {
        audit.keep(sort, study, what);
    }

    @PreAuthorize("@accountAccess.isAdministrator()")
    public void record() {
        audit.keep(AuditSort.RECORD_EXPORTED, "");
    }
}
