package org.mossbank.server.archive;

import java.time.Clock;
import java.util.List;
import java.util.Optional;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.study.Studies;
import org.springframework.stereotype.Component;

/** Archives that were brought in before, by their bytes. */
@Component
class KnownArchives {
    private final ArchiveImportRepository imports;
    private final Studies studies;
    private final Clock clock;

    KnownArchives(ArchiveImportRepository imports, Studies studies, Clock clock) {
        this.imports = imports;
        this.studies = studies;
        this.clock = clock;
    }

    /** The last study that a lead made of a file, if they still lead it. */
    Optional<Brought> before(AccountId lead, String digest) {
        return imports.findFirstByLeadIdAndDigestOrderByBroughtAtDesc(lead, digest)
                .filter(i -> studies.ofLead(lead).contains(i.studyId()))
                .map(i -> new Brought(
                        i.studyId(), studies.get(i.studyId()).title(), List.of(), List.of(), i.broughtAt()));
    }

    /** Within the transaction of whoever loads it. */
    void add(StudyId study, AccountId lead, String digest) {
        imports.save(ArchiveImport.of(study, lead, digest, clock.instant()));
    }
}
