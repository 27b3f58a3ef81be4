package org.mossbank.server.archive;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.files.Fault;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.shared.Failures;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.Progress;

/** One archive on its way in. */
final class ImportJob {
    private final UUID id = UUID.randomUUID();
    private final AccountId lead;
    private final String file;
    private final Instant begunAt;
    private final Progress progress = new Progress();
    private volatile End end = new End(ImportView.State.WAITING, null, null, List.of());

    private record End(
            ImportView.State state,
            ArchiveIntake.@Nullable Brought brought,
            @Nullable String detail,
            List<Fault> faults) {}

    ImportJob(AccountId lead, String file, Instant begunAt) {
        this.lead = lead;
        this.file = file;
        this.begunAt = begunAt;
    }

    UUID id() {
        return id;
    }

    AccountId lead() {
        return lead;
    }

    void giveUp() {
        progress.giveUp();
    }

    void run(Supplier<ArchiveIntake.Brought> work) {
        try {
            end = new End(ImportView.State.RUNNING, null, null, List.of());
            end = new End(ImportView.State.DONE, progress.follow(work), null, List.of());
        } catch (Progress.Unwanted e) {
            end = new End(ImportView.State.CANCELLED, null, "It was given up. Nothing was loaded.", List.of());
        } catch (RuntimeException e) {
            Problem problem = e instanceof Problem own ? own : Failures.of(e);
            end = new End(ImportView.State.REFUSED, null, problem.getBody().getDetail(), faults(problem));
        } catch (Error e) {
            // Whoever waits for it is told, whatever becomes of the server.
            end = new End(
                    ImportView.State.REFUSED, null, "The server could not do this. Nothing was loaded.", List.of());
            throw e;
        }
    }

    private static List<Fault> faults(Problem problem) {
        Map<String, Object> more = problem.getBody().getProperties();
        return more != null && more.get("faults") instanceof List<?> faults
                ? faults.stream().map(Fault.class::cast).toList()
                : List.of();
    }

    ImportView view() {
        End now = end;
        Progress.Seen seen = now.state == ImportView.State.RUNNING ? progress.seen() : new Progress.Seen("", 0, 0);
        return new ImportView(
                id,
                file,
                begunAt,
                now.state,
                seen.stage(),
                seen.done(),
                seen.total(),
                now.brought,
                now.detail,
                now.faults);
    }
}
