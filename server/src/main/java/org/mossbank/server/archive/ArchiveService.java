package org.mossbank.server.archive;

import java.util.random.RandomGenerator;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.Problem;
import org.springframework.core.io.InputStreamSource;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Bringing in a study from an archive, and writing one out. */
@Service
class ArchiveService {
    /** Seeds stay whole in every JSON reader. */
    static final long HIGHEST_SEED = (1L << 53) - 1;

    private final ArchiveIntake intake;
    private final StudyExport export;
    private final CurrentAccount current;
    private final HeavyWork heavy;

    ArchiveService(ArchiveIntake intake, StudyExport export, CurrentAccount current, HeavyWork heavy) {
        this.intake = intake;
        this.export = export;
        this.current = current;
        this.heavy = heavy;
    }

    static long freshSeed() {
        return RandomGenerator.getDefault().nextLong(HIGHEST_SEED);
    }

    /**
     * Loads a study, with whoever asks as its lead, while they wait.
     *
     * @throws Problem 400 with every fault if the archive is not right; then nothing is written
     */
    @PreAuthorize("@studyAccess.mayBringIn()")
    @Transactional(propagation = Propagation.NEVER)
    public ArchiveIntake.Brought bringIn(InputStreamSource zip, boolean again) {
        return intake.bringIn(zip, current.id(), again);
    }

    /** The study as an archive. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public ArchiveFiles writeOut(StudyId study) {
        StudyArchive whole = export.of(study);
        return heavy.run(() -> ArchiveWriter.write(whole));
    }
}
