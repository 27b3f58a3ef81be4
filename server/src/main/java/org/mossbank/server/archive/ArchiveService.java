package org.mossbank.server.archive;

import java.io.IOException;
import java.io.InputStream;
import java.time.Clock;
import java.util.List;
import java.util.Objects;
import java.util.random.RandomGenerator;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.account.Invitation;
import org.mossbank.server.files.Fault;
import org.mossbank.server.files.ZipFiles;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** Bringing in a study from an archive, and writing one out. */
@Service
class ArchiveService {
    /** Seeds stay whole in every JSON reader. */
    static final long HIGHEST_SEED = (1L << 53) - 1;

    private final ArchiveLoader loader;
    private final StudyExport export;
    private final Accounts accounts;
    private final CurrentAccount current;
    private final HeavyWork heavy;
    private final TransactionTemplate transactions;
    private final Clock clock;
    private final ArchiveNotes notes;

    ArchiveService(
            ArchiveLoader loader,
            StudyExport export,
            Accounts accounts,
            CurrentAccount current,
            HeavyWork heavy,
            TransactionTemplate transactions,
            Clock clock,
            ArchiveNotes notes) {
        this.notes = notes;
        this.loader = loader;
        this.export = export;
        this.accounts = accounts;
        this.current = current;
        this.heavy = heavy;
        this.transactions = transactions;
        this.clock = clock;
    }

    static long freshSeed() {
        return RandomGenerator.getDefault().nextLong(HIGHEST_SEED);
    }

    /** What came of an archive; links are shown this once. */
    record Brought(StudyId studyId, String title, List<Invitation> invitations, List<String> notes) {}

    /**
     * Loads a study, with whoever asks as its lead.
     *
     * @throws Problem 400 with every fault if the archive is not right; then nothing is written
     */
    @PreAuthorize("@studyAccess.mayBringIn()")
    @Transactional(propagation = Propagation.NEVER)
    public Brought bringIn(InputStream zip) {
        AccountId lead = current.id();
        AccountView account = Require.known(accounts.byId(List.of(lead)), lead);
        ArchiveLoader.Weighed weighed = heavy.run(() -> {
            StudyArchive archive = read(zip);
            refuseLeadAsRater(archive, account);
            return ArchiveLoader.Weighed.of(archive);
        });
        Brought brought = Objects.requireNonNull(transactions.execute(status -> load(weighed, lead)));
        return new Brought(brought.studyId(), brought.title(), brought.invitations(), notes.of(brought.studyId()));
    }

    private Brought load(ArchiveLoader.Weighed weighed, AccountId lead) {
        ArchiveLoader.Loaded loaded = loader.load(weighed, lead);
        return new Brought(
                loaded.studyId(),
                weighed.archive().head().title(),
                loaded.raters().stream()
                        .filter(r -> !r.hasPassword() && !loaded.asked().contains(r.id()))
                        .map(r -> accounts.invite(r.id(), lead))
                        .toList(),
                List.of());
    }

    private StudyArchive read(InputStream zip) {
        try {
            ArchiveReader.Reading reading =
                    ArchiveReader.read(ArchiveFiles.fromZip(zip), ArchiveService::freshSeed, clock.instant());
            return reading.study().orElseThrow(() -> refusal(reading.faults()));
        } catch (ZipFiles.Unreadable e) {
            throw refusal(List.of(Fault.ofFile("the archive", e.rule())));
        } catch (IOException e) {
            // The file was received whole before it is read, so this is a fault of its own.
            throw refusal(List.of(Fault.ofFile("the archive", "must be a zip file that is whole")));
        }
    }

    private static void refuseLeadAsRater(StudyArchive archive, AccountView lead) {
        boolean named = archive.people().raters().stream()
                .anyMatch(r -> !r.lead() && r.signInName().equals(lead.signInName()));
        if (named) {
            throw refusal(List.of(new Fault(
                    "raters.csv",
                    null,
                    "rater",
                    "other people than you: the lead sees names and cannot grade",
                    lead.signInName())));
        }
    }

    private static Problem refusal(List<Fault> faults) {
        return new Problem(
                        ProblemType.ARCHIVE_REFUSED,
                        faults.size() == 1
                                ? "One thing is wrong with the archive. Nothing was loaded."
                                : faults.size() + " things are wrong with the archive. Nothing was loaded.")
                .with("faults", faults);
    }

    /** The study as an archive. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public ArchiveFiles writeOut(StudyId study) {
        StudyArchive whole = export.of(study);
        return heavy.run(() -> ArchiveWriter.write(whole));
    }
}
