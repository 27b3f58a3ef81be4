package org.mossbank.server.archive;

import java.time.Clock;
import java.util.List;
import java.util.Optional;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.audit.Audit;
import org.mossbank.server.audit.AuditSort;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.study.Studies;
import org.springframework.stereotype.Component;

/** Archives that were brought in before, by their bytes. */
@Component
class KnownArchives {
    private final ArchiveImportRepository imports;
    private final Studies studies;
    private final Accounts accounts;
    private final Audit audit;
    private final Clock clock;

    KnownArchives(ArchiveImportRepository imports, Studies studies, Accounts accounts, Audit audit, Clock clock) {
        this.imports = imports;
        this.studies = studies;
        this.accounts = accounts;
        this.audit = audit;
        this.clock = clock;
    }

    /** The last study that a lead made of a file, if they still lead it. */
    Optional<ArchiveIntake.Brought> before(AccountId lead, String digest) {
        return imports.findFirstByLeadIdAndDigestOrderByBroughtAtDesc(lead, digest)
                .filter(i -> studies.ofLead(lead).contains(i.studyId()))
                .map(i -> new ArchiveIntake.Brought(
                        i.studyId(), studies.get(i.studyId()).title(), List.of(), List.of(), i.broughtAt()));
    }

    /** Within the transaction of whoever loads it. */
    void add(StudyId study, AccountId lead, String digest, String title) {
        // An import goes on when whoever sent it has left the page: nobody asks then.
        String who = Require.known(accounts.byId(List.of(lead)), lead).signInName();
        audit.keepOf(who, AuditSort.STUDY_BROUGHT_IN, study, title);
        imports.save(ArchiveImport.of(study, lead, digest, clock.instant()));
    }
}
