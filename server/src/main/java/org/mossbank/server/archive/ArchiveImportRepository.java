package org.mossbank.server.archive;

import java.util.Optional;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;

interface ArchiveImportRepository extends JpaRepository<ArchiveImport, StudyId> {
    /** The last study that a lead made of an archive. */
    Optional<ArchiveImport> findFirstByLeadIdAndDigestOrderByBroughtAtDesc(AccountId lead, String digest);
}
