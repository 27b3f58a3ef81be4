package org.mossbank.server.sandbox;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;

/** Looks after a program while it runs: ends it when its time is over, when it holds too much, and when somebody stops it. */
final class Watch {
    private static final long EVERY_MS = 50;

    private final WholeProgram program;
    private final SandboxLimits limits;
    private final Sandbox.Stop stop;
    private final long begun = System.nanoTime();
    private final long latest;
    private final Thread thread = new Thread(this::look, "sandbox-watch");

    private volatile boolean late;
    private volatile boolean stopped;
    private volatile boolean heldTooMuch;
    private volatile long mostKb;
    private volatile long ended;

    Watch(WholeProgram program, SandboxLimits limits, Sandbox.Stop stop, Duration grace) {
        this.program = program;
        this.limits = limits;
        this.stop = stop;
        this.latest = begun + limits.time().plus(grace).toNanos();
        thread.setDaemon(true);
    }

    void start() {
        thread.start();
    }

    private void look() {
        try {
            while (!program.first().waitFor(EVERY_MS, TimeUnit.MILLISECONDS)) {
                long held = heldKb();
                mostKb = Math.max(mostKb, held);
                late = System.nanoTime() > latest;
                stopped = stop.isStopped();
                heldTooMuch = held > limits.memoryMb() * 1024L * 5 / 4;
                if (late || stopped || heldTooMuch) {
                    program.end();
                    return;
                }
            }
        } catch (InterruptedException e) {
            program.end();
            Thread.currentThread().interrupt();
        }
    }

    /** Of all its processes; one that just ended counts nothing. */
    private long heldKb() {
        return program.first().descendants().mapToLong(p -> residentKb(p.pid())).sum();
    }

    /** Its own memory, and what it shares with its like; not the machine's libraries. */
    private static long residentKb(long pid) {
        try (Stream<String> lines = Files.lines(Path.of("/proc", String.valueOf(pid), "status"))) {
            return lines.filter(l -> l.startsWith("RssAnon:") || l.startsWith("RssShmem:"))
                    .mapToLong(l -> Long.parseLong(l.replaceAll("\\D", "")))
                    .sum();
        } catch (IOException | UncheckedIOException | NumberFormatException e) {
            return 0;
        }
    }

    void end() {
        ended = System.nanoTime();
        try {
            thread.join();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    long millis() {
        return TimeUnit.NANOSECONDS.toMillis(ended - begun);
    }

    long mostMemoryKb() {
        return mostKb;
    }

    boolean wasLate() {
        return late;
    }

    boolean wasStopped() {
        return stopped;
    }

    boolean heldTooMuch() {
        return heldTooMuch;
    }
}
