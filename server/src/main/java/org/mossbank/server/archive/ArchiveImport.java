package org.mossbank.server.archive;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import org.hibernate.annotations.Immutable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;

/** Which archive a study came from, so that the same one sent again is known. */
@Entity
@Immutable
class ArchiveImport {
    @Id
    private StudyId studyId;

    private AccountId leadId;

    /** SHA-256 of the file as it was sent, in hexadecimal. */
    private String digest;

    private Instant broughtAt;

    @SuppressWarnings("NullAway.Init")
    protected ArchiveImport() {}

    static ArchiveImport of(StudyId study, AccountId lead, String digest, Instant now) {
        ArchiveImport brought = new ArchiveImport();
        brought.studyId = study;
        brought.leadId = lead;
        brought.digest = digest;
        brought.broughtAt = now;
        return brought;
    }

    StudyId studyId() {
        return studyId;
    }

    Instant broughtAt() {
        return broughtAt;
    }
}
