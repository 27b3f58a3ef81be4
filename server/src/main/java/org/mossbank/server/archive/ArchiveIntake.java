package org.mossbank.server.archive;

import java.io.IOException;
import java.io.InputStream;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Clock;
import java.time.Instant;
import java.util.HexFormat;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.account.Invitation;
import org.mossbank.server.figures.FiguresAhead;
import org.mossbank.server.files.Fault;
import org.mossbank.server.files.ZipFiles;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.Progress;
import org.springframework.core.io.InputStreamSource;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Brings an archive in: reads it, checks it, and writes it whole or not at all. */
@Component
class ArchiveIntake {
    private final ArchiveLoader loader;
    private final KnownArchives known;
    private final Accounts accounts;
    private final HeavyWork heavy;
    private final TransactionTemplate transactions;
    private final Clock clock;
    private final ArchiveNotes notes;
    private final FiguresAhead figures;
    private final Set<Sent> underWay = ConcurrentHashMap.newKeySet();

    ArchiveIntake(
            ArchiveLoader loader,
            KnownArchives known,
            Accounts accounts,
            HeavyWork heavy,
            TransactionTemplate transactions,
            Clock clock,
            ArchiveNotes notes,
            FiguresAhead figures) {
        this.loader = loader;
        this.known = known;
        this.accounts = accounts;
        this.heavy = heavy;
        this.transactions = transactions;
        this.clock = clock;
        this.notes = notes;
        this.figures = figures;
    }

    /**
     * What came of an archive; links are shown this once.
     *
     * @param notes      what to look at before raters begin, in sentences
     * @param thereSince when the same file made this study, if it was brought in before; then nothing was done now
     */
    record Brought(
            StudyId studyId,
            String title,
            List<Invitation> invitations,
            List<String> notes,
            @Nullable Instant thereSince) {
        Brought withNotes(List<String> all) {
            return new Brought(studyId, title, invitations, all, thereSince);
        }
    }

    /** One file of one person. */
    private record Sent(AccountId lead, String digest) {}

    private record Unpacked(ArchiveFiles files, String digest) {}

    /**
     * Loads a study.
     *
     * @param again whether to load it once more where this lead brought the very same file in before
     * @throws Problem 400 with every fault if the archive is not right; then nothing is written. 503 while the same file is
     *     being brought in
     */
    Brought bringIn(InputStreamSource zip, AccountId lead, boolean again) {
        Progress.stage("unpacking", 0);
        Unpacked unpacked = heavy.run(() -> unpack(zip));
        Sent sent = new Sent(lead, unpacked.digest);
        if (!underWay.add(sent)) {
            throw Problem.busy("This very archive is being brought in at this moment.");
        }
        try {
            Optional<Brought> before = again ? Optional.empty() : known.before(lead, sent.digest);
            return before.orElseGet(() -> load(unpacked, lead));
        } finally {
            underWay.remove(sent);
        }
    }

    private Brought load(Unpacked unpacked, AccountId lead) {
        AccountView account = Require.known(accounts.byId(List.of(lead)), lead);
        ArchiveLoader.Weighed weighed = heavy.run(() -> {
            StudyArchive archive = read(unpacked.files);
            refuseLeadAsRater(archive, account);
            Progress.stage("comparing answers with the starting code", 0);
            return ArchiveLoader.Weighed.of(archive);
        });
        Brought brought = Objects.requireNonNull(transactions.execute(status -> load(weighed, lead, unpacked.digest)));
        figures.cameIn(
                brought.studyId(),
                weighed.archive().sheets().stream()
                        .mapToInt(s -> s.answers().size())
                        .sum());
        return brought.withNotes(notes.of(brought.studyId()));
    }

    private Brought load(ArchiveLoader.Weighed weighed, AccountId lead, String digest) {
        ArchiveLoader.Loaded loaded = loader.load(weighed, lead);
        known.add(loaded.studyId(), lead, digest, weighed.archive().head().title());
        return new Brought(
                loaded.studyId(),
                weighed.archive().head().title(),
                loaded.raters().stream()
                        .filter(r -> !r.canSignIn() && !loaded.asked().contains(r.id()))
                        .map(r -> accounts.invite(r.id(), lead))
                        .toList(),
                List.of(),
                null);
    }

    private static Unpacked unpack(InputStreamSource zip) {
        try (InputStream in = zip.getInputStream();
                DigestInputStream digested = new DigestInputStream(in, MessageDigest.getInstance("SHA-256"))) {
            ArchiveFiles files = ArchiveFiles.fromZip(digested);
            return new Unpacked(
                    files, HexFormat.of().formatHex(digested.getMessageDigest().digest()));
        } catch (ZipFiles.Unreadable e) {
            throw refusal(List.of(Fault.ofFile("the archive", e.rule())));
        } catch (IOException e) {
            // The file was received whole before it is read, so this is a fault of its own.
            throw refusal(List.of(Fault.ofFile("the archive", "must be a zip file that is whole")));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    private StudyArchive read(ArchiveFiles files) {
        ArchiveReader.Reading reading = ArchiveReader.read(files, ArchiveService::freshSeed, clock.instant());
        return reading.study().orElseThrow(() -> refusal(reading.faults()));
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
}
