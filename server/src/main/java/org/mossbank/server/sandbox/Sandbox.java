package org.mossbank.server.sandbox;

import jakarta.annotation.PreDestroy;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.concurrent.Semaphore;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.trial.SafePath;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;
import org.springframework.util.FileSystemUtils;

/**
 * Runs programs that nobody trusts. Each has user, mount, process, network and other namespaces of its own, no rights, no network, an
 * empty root with the machine's programs to be read only, and a work folder in memory that is gone with it; what it leaves in that
 * folder is handed out as bytes. There is no other way to run one: where the sandbox cannot be had, none is run.
 */
@Component
public class Sandbox {
    private static final Logger LOG = LoggerFactory.getLogger(Sandbox.class);
    private static final Duration TO_SET_UP_AND_HAND_OUT = Duration.ofSeconds(10);
    private static final long MB = 1 << 20;
    private static final int KILLED = 137;

    private final Path parent;
    private final boolean isRoot = "root".equals(System.getProperty("user.name"));
    private final int atOnce;
    private final Semaphore room;
    private @Nullable State state;

    /** @param atOnce how many programs run at the same time; 0 for one less than there are processors */
    Sandbox(@Value("${mossbank.sandbox.folder}") Path parent, @Value("${mossbank.trials.at-once}") int atOnce) {
        this.parent = parent;
        // One processor is left to grading.
        this.atOnce = atOnce > 0 ? atOnce : Math.max(1, Runtime.getRuntime().availableProcessors() - 1);
        this.room = new Semaphore(this.atOnce, true);
    }

    /** What lay there for programs goes with the server. */
    @PreDestroy
    synchronized void removeAll() {
        if (state != null) {
            state.bubblewrap.ifPresent(b -> remove(b.home()));
        }
    }

    /**
     * What was found when it was first wanted.
     *
     * @param missing why there is none, in words
     */
    private record State(Optional<String> missing, Optional<Bubblewrap> bubblewrap) {}

    private synchronized State state() {
        if (state == null) {
            state = looked();
            state.missing.ifPresent(why -> LOG.warn("Trials are off: {}", why));
        }
        return state;
    }

    private State looked() {
        try {
            Files.createDirectories(parent);
            // Whoever a program runs as passes through, and sees nothing.
            Files.setPosixFilePermissions(parent, PosixFilePermissions.fromString("rwx--x--x"));
            removeLeftBehind();
            Path home =
                    Files.createTempDirectory(parent, ProcessHandle.current().pid() + "-");
            Bubblewrap laid = Bubblewrap.in(home, isRoot);
            return new State(tried(laid), Optional.of(laid));
        } catch (IOException e) {
            return new State(Optional.of("the folder " + parent + " cannot be used"), Optional.empty());
        }
    }

    /** What servers that were killed left there. */
    private void removeLeftBehind() throws IOException {
        try (Stream<Path> folders = Files.list(parent)) {
            folders.filter(f -> f.getFileName().toString().matches("\\d{1,9}-.*"))
                    .filter(f ->
                            !isAlive(Long.parseLong(f.getFileName().toString().split("-", 2)[0])))
                    .forEach(Sandbox::remove);
        }
    }

    private static boolean isAlive(long pid) {
        return ProcessHandle.of(pid).filter(ProcessHandle::isAlive).isPresent();
    }

    private Optional<String> tried(Bubblewrap laid) {
        SandboxJob job =
                new SandboxJob(WorkFiles.none(), "echo shut in", "", SandboxTools.none(), SandboxLimits.usual());
        try {
            return run(laid, job, new Stop()).output().text().equals("shut in\n")
                    ? Optional.empty()
                    : Optional.of("bubblewrap does not shut programs in on this machine");
        } catch (UncheckedIOException e) {
            return Optional.of("bubblewrap, prlimit or setpriv is not installed");
        }
    }

    /** How many programs run at the same time. */
    public int atOnce() {
        return atOnce;
    }

    /** Why nothing can be run, in words; empty if it can. */
    public Optional<String> missing() {
        return state().missing;
    }

    /**
     * Copies a folder to where every program can be shown it, whoever it runs as: the folder itself may lie below one that nobody
     * else can enter.
     *
     * @return where the copy is; empty if nothing can be run
     */
    public Optional<Path> shown(Path folder, String name) throws IOException {
        Optional<Bubblewrap> laid = state().bubblewrap;
        if (laid.isEmpty()) {
            return Optional.empty();
        }
        Path copy = laid.get().home().resolve(name);
        FileSystemUtils.copyRecursively(folder, copy);
        return Optional.of(copy);
    }

    /** Stops a program from another thread. */
    public static final class Stop {
        private volatile boolean stopped;

        public void stop() {
            stopped = true;
        }

        boolean isStopped() {
            return stopped;
        }
    }

    /**
     * Runs a program when it is its turn, and waits for its end; a few seconds beyond its time at the most.
     *
     * @throws IllegalStateException if the sandbox cannot be had
     */
    public SandboxResult run(SandboxJob job, Stop stop) {
        missing().ifPresent(why -> {
            throw new IllegalStateException("no program is run, as " + why);
        });
        return run(state().bubblewrap.orElseThrow(), job, stop);
    }

    private SandboxResult run(Bubblewrap laid, SandboxJob job, Stop stop) {
        Path in = null;
        room.acquireUninterruptibly();
        try (ControlGroup group = ControlGroup.of(job.limits())) {
            in = laid.written(job);
            WholeProgram program = WholeProgram.begun(laid.command(in, job, group.doors()));
            return watched(program, job.limits(), group, stop);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } finally {
            room.release();
            if (in != null) {
                remove(in);
            }
        }
    }

    private static void remove(Path folder) {
        try {
            FileSystemUtils.deleteRecursively(folder);
        } catch (IOException e) {
            LOG.warn("A folder of a trial is left behind", e);
        }
    }

    private SandboxResult watched(WholeProgram program, SandboxLimits limits, ControlGroup group, Stop stop) {
        Watch watch = new Watch(program, limits, stop, TO_SET_UP_AND_HAND_OUT);
        watch.start();
        SortedMap<String, byte[]> found = new TreeMap<>();
        boolean tooMuch = false;
        // What is handed out is bounded by what it may hold; beyond that nothing is read of it.
        long most = 2 * (limits.workMb() * MB + 2L * limits.outputBytes());
        try (InputStream out = new BufferedInputStream(program.first().getInputStream(), 1 << 16)) {
            found = Tars.read(out, most);
        } catch (Tars.Broken e) {
            tooMuch = e.tooMuch;
        } catch (IOException e) {
            LOG.debug("A pipe could not be closed", e);
        } finally {
            program.end();
            program.first().onExit().join();
            watch.end();
        }
        return result(found, limits, watch, group, tooMuch);
    }

    private SandboxResult result(
            SortedMap<String, byte[]> found, SandboxLimits limits, Watch watch, ControlGroup group, boolean tooMuch) {
        Optional<Ended> ended = text(found, "x/status").flatMap(Ended::parse);
        SandboxResult.Output output = output(found, "x/output", limits);
        SandboxResult.Output errors = output(found, "x/errors", limits);
        SortedMap<String, byte[]> files = new TreeMap<>();
        found.forEach((path, bytes) -> {
            if (path.startsWith("w/") && SafePath.is(path.substring(2))) {
                files.put(path.substring(2), bytes);
            }
        });
        return new SandboxResult(
                ending(ended, output.cut() || errors.cut() || tooMuch, limits, watch, group),
                ended.map(Ended::status).orElse(KILLED),
                ended.map(Ended::millis).orElse(watch.millis()),
                watch.mostMemoryKb(),
                output,
                errors,
                WorkFiles.taking(files));
    }

    private static SandboxResult.Ending ending(
            Optional<Ended> ended, boolean wroteTooMuch, SandboxLimits limits, Watch watch, ControlGroup group) {
        if (watch.wasStopped()) {
            return SandboxResult.Ending.STOPPED;
        }
        if (watch.heldTooMuch() || group.ranOutOfMemory()) {
            return SandboxResult.Ending.OUT_OF_MEMORY;
        }
        if (wroteTooMuch) {
            return SandboxResult.Ending.WROTE_TOO_MUCH;
        }
        boolean isOver = ended.filter(
                        e -> e.status == KILLED && e.millis >= limits.time().toMillis())
                .isPresent();
        if (watch.wasLate() || isOver) {
            return SandboxResult.Ending.TIMED_OUT;
        }
        return ended.isPresent() ? SandboxResult.Ending.BY_ITSELF : SandboxResult.Ending.BROKE_ITS_BOX;
    }

    /** What the inside says of the end; the program may have written it itself. */
    private record Ended(int status, long millis) {
        static Optional<Ended> parse(String text) {
            String[] words = text.strip().split(" ");
            return words.length == 2 && words[0].matches("\\d{1,3}") && words[1].matches("\\d{1,9}")
                    ? Optional.of(new Ended(Integer.parseInt(words[0]), Long.parseLong(words[1])))
                    : Optional.empty();
        }
    }

    private static Optional<String> text(SortedMap<String, byte[]> found, String path) {
        return Optional.ofNullable(found.get(path)).map(b -> new String(b, StandardCharsets.UTF_8));
    }

    private static SandboxResult.Output output(SortedMap<String, byte[]> found, String path, SandboxLimits limits) {
        byte[] bytes = found.get(path);
        // One that fills its bound to the byte is taken for cut.
        return bytes == null
                ? SandboxResult.Output.NONE
                : new SandboxResult.Output(
                        new String(bytes, StandardCharsets.UTF_8), bytes.length >= limits.outputBytes());
    }
}
