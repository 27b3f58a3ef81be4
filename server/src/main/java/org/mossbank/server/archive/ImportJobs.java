package org.mossbank.server.archive;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.core.io.FileSystemResource;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.web.multipart.MultipartFile;

/**
 * Archives that are brought in beside everything else, whether or not whoever sent them stays. What came of each is told
 * for an hour after it was last asked for.
 */
@Service
class ImportJobs {
    private static final int AT_ONCE = 2;
    private static final int MOST_WAITING = 8;
    private static final int MOST_TOLD = 1_000;
    private static final Duration TOLD_FOR = Duration.ofHours(1);

    private final ArchiveIntake intake;
    private final CurrentAccount current;
    private final Clock clock;
    private final Cache<UUID, ImportJob> jobs = Caffeine.newBuilder()
            .maximumSize(MOST_TOLD)
            .expireAfterAccess(TOLD_FOR)
            .build();
    private final ThreadPoolExecutor beside = new ThreadPoolExecutor(
            AT_ONCE,
            AT_ONCE,
            0,
            TimeUnit.SECONDS,
            new ArrayBlockingQueue<>(MOST_WAITING),
            work -> new Thread(work, "archive-import"));

    ImportJobs(ArchiveIntake intake, CurrentAccount current, Clock clock) {
        this.intake = intake;
        this.current = current;
        this.clock = clock;
    }

    /**
     * Begins to bring an archive in, with whoever asks as its lead.
     *
     * @throws Problem 503 if too many wait already
     */
    @PreAuthorize("@studyAccess.mayBringIn()")
    public ImportView begin(MultipartFile file, boolean again) {
        AccountId lead = current.id();
        String name = Optional.ofNullable(file.getOriginalFilename()).orElse("");
        Path kept = keep(file);
        ImportJob job = new ImportJob(lead, name, clock.instant());
        try {
            beside.execute(() -> {
                try {
                    job.run(() -> intake.bringIn(new FileSystemResource(kept), lead, again));
                } finally {
                    delete(kept);
                }
            });
        } catch (RejectedExecutionException e) {
            delete(kept);
            throw Problem.busy("Too many archives are being brought in at this moment.");
        }
        jobs.put(job.id(), job);
        return job.view();
    }

    /** One's own, newest first. */
    @PreAuthorize("@studyAccess.mayBringIn()")
    public List<ImportView> own() {
        AccountId who = current.id();
        return jobs.asMap().values().stream()
                .filter(j -> j.lead().equals(who))
                .map(ImportJob::view)
                .sorted(Comparator.comparing(ImportView::begunAt).reversed())
                .toList();
    }

    /** @throws Problem 404 unless whoever asks began it, not long ago, and the server did not start anew since */
    @PreAuthorize("@studyAccess.mayBringIn()")
    public ImportView one(UUID id) {
        return find(id).view();
    }

    /** Nothing is written then; one that has ended stays as it ended. */
    @PreAuthorize("@studyAccess.mayBringIn()")
    public ImportView cancel(UUID id) {
        ImportJob job = find(id);
        job.giveUp();
        return job.view();
    }

    private ImportJob find(UUID id) {
        AccountId who = current.id();
        return Optional.ofNullable(jobs.getIfPresent(id))
                .filter(j -> j.lead().equals(who))
                .orElseThrow(() -> Problem.notFound("This import"));
    }

    /** Under a name of ours: what was received is gone when the request ends. */
    private static Path keep(MultipartFile file) {
        try {
            Path kept = Files.createTempFile("mossbank-archive", ".zip");
            file.transferTo(kept);
            return kept;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static void delete(Path kept) {
        try {
            Files.deleteIfExists(kept);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @SystemOnly
    @EventListener(ContextClosedEvent.class)
    void end() {
        jobs.asMap().values().forEach(ImportJob::giveUp);
        beside.shutdownNow();
    }
}
