package org.mossbank.server.archive;

import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.files.Fault;

/**
 * How far an archive has got on its way in.
 *
 * @param file    its name
 * @param stage   what is done at the moment, in a phrase; empty before it begins and after it ended
 * @param done    of {@code total}
 * @param total   parts of the stage; 0 where they cannot be counted
 * @param brought what came of it, once it is done
 * @param detail  why nothing came of it, where nothing did
 * @param faults  of the archive
 */
record ImportView(
        UUID id,
        String file,
        Instant begunAt,
        State state,
        String stage,
        long done,
        long total,
        ArchiveIntake.@Nullable Brought brought,
        @Nullable String detail,
        List<Fault> faults) {
    enum State {
        WAITING,
        RUNNING,
        DONE,
        REFUSED,
        CANCELLED
    }
}
