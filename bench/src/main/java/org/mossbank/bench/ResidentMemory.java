package org.mossbank.bench;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.mossbank.testkit.ServerProcess;

/** Memory of the server over time, as the system counts it. */
final class ResidentMemory implements AutoCloseable {
    private static final int SAMPLES = 20;

    private final ServerProcess server;
    private final List<Long> megabytes = new ArrayList<>();
    private final ScheduledExecutorService clock = Executors.newSingleThreadScheduledExecutor();

    private ResidentMemory(ServerProcess server) {
        this.server = server;
    }

    static ResidentMemory watch(ServerProcess server, Duration span) {
        ResidentMemory memory = new ResidentMemory(server);
        long every = Math.max(1_000, span.toMillis() / SAMPLES);
        memory.clock.scheduleAtFixedRate(memory::sample, every, every, TimeUnit.MILLISECONDS);
        return memory;
    }

    private synchronized void sample() {
        try {
            for (String line : Files.readAllLines(Path.of("/proc/" + server.id() + "/status"))) {
                if (line.startsWith("VmRSS:")) {
                    megabytes.add(Long.parseLong(line.replaceAll("\\D", "")) >> 10);
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException("the server's memory could not be read", e);
        }
    }

    synchronized void report() {
        System.out.println("memory of the server over time, in MB: " + megabytes);
    }

    @Override
    public void close() {
        clock.shutdown();
    }
}
