package org.mossbank.server.sandbox;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The kernel's own bounds for all processes of one program together, where this server may set them; elsewhere the other limits hold
 * alone.
 */
final class ControlGroup implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(ControlGroup.class);
    private static final Path ROOT = Path.of("/sys/fs/cgroup");
    private static final int TRIES = 20;

    private final List<Path> folders;

    private ControlGroup(List<Path> folders) {
        this.folders = folders;
    }

    /** One for a program within limits; it binds nothing where the server may not set it. */
    static ControlGroup of(SandboxLimits limits) {
        String name = "mossbank-" + UUID.randomUUID();
        List<Path> made = new ArrayList<>();
        // What it holds in its folders counts as memory too.
        long bytes = (limits.memoryMb() + 2L * limits.workMb()) << 20;
        folder("memory", name).ifPresent(f -> {
            made.add(f);
            set(f, "memory.limit_in_bytes", bytes);
            // Where memory can be swapped out, that counts as well.
            set(f, "memory.memsw.limit_in_bytes", bytes);
        });
        folder("pids", name).ifPresent(f -> {
            made.add(f);
            set(f, "pids.max", limits.processes());
        });
        unified(name).ifPresent(f -> {
            made.add(f);
            set(f, "memory.max", bytes);
            set(f, "memory.swap.max", 0);
            set(f, "pids.max", limits.processes());
        });
        return new ControlGroup(made);
    }

    private static Optional<Path> folder(String controller, String name) {
        return made(ROOT.resolve(controller), "tasks", name);
    }

    /** Of the newer sort, where its controllers are handed down. */
    private static Optional<Path> unified(String name) {
        try {
            Path handedDown = ROOT.resolve("cgroup.subtree_control");
            return Files.exists(handedDown) && Files.readString(handedDown).contains("memory")
                    ? made(ROOT, "cgroup.controllers", name)
                    : Optional.empty();
        } catch (IOException e) {
            return Optional.empty();
        }
    }

    private static Optional<Path> made(Path parent, String mark, String name) {
        if (!Files.isWritable(parent) || !Files.exists(parent.resolve(mark))) {
            return Optional.empty();
        }
        try {
            return Optional.of(Files.createDirectory(parent.resolve(name)));
        } catch (IOException e) {
            return Optional.empty();
        }
    }

    private static void set(Path folder, String file, long value) {
        try {
            if (Files.exists(folder.resolve(file))) {
                Files.writeString(folder.resolve(file), String.valueOf(value));
            }
        } catch (IOException e) {
            LOG.debug("A bound of the kernel's could not be set: {}", file, e);
        }
    }

    /** Files that a process writes its number to, to be bound. */
    List<String> doors() {
        return folders.stream().map(f -> f.resolve("cgroup.procs").toString()).toList();
    }

    /** Whether a process was ended for the memory it wanted. */
    boolean ranOutOfMemory() {
        return folders.stream().anyMatch(f -> counts(f, "memory.oom_control") || counts(f, "memory.events"));
    }

    private static boolean counts(Path folder, String file) {
        try {
            return Files.exists(folder.resolve(file))
                    && Files.readAllLines(folder.resolve(file)).stream()
                            .anyMatch(l -> l.startsWith("oom_kill ") && !l.endsWith(" 0"));
        } catch (IOException e) {
            return false;
        }
    }

    @Override
    public void close() {
        folders.forEach(ControlGroup::remove);
    }

    /** The kernel lets go of a group a moment after the last process of it has ended. */
    private static void remove(Path folder) {
        for (int i = 0; i < TRIES; i++) {
            try {
                Files.deleteIfExists(folder);
                return;
            } catch (IOException e) {
                try {
                    Thread.sleep(10);
                } catch (InterruptedException stopped) {
                    Thread.currentThread().interrupt();
                    return;
                }
            }
        }
        LOG.debug("A group of processes is left behind: {}", folder);
    }
}
