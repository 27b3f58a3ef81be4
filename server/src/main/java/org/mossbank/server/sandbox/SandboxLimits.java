package org.mossbank.server.sandbox;

import java.time.Duration;
import org.mossbank.core.estimate.Require;

/**
 * What a program may use.
 *
 * @param time        by the clock
 * @param memoryMb    that all its processes hold together
 * @param processes   and threads at once
 * @param outputBytes of each of its two outputs; what is beyond is cut
 * @param workMb      in its work folder, and as much again for what it puts elsewhere
 */
public record SandboxLimits(Duration time, int memoryMb, int processes, int outputBytes, int workMb) {
    public static final int MOST_SECONDS = 120;
    public static final int MOST_MEMORY_MB = 2048;
    public static final int MOST_PROCESSES = 256;
    public static final int MOST_OUTPUT_BYTES = 1 << 20;
    public static final int MOST_WORK_MB = 128;

    /** @throws IllegalArgumentException if one is beyond what any program may use */
    public SandboxLimits {
        long millis = time.toMillis();
        Require.that(millis > 0 && millis <= MOST_SECONDS * 1000L, "time", "is between 0 and two minutes", time);
        within("memoryMb", 16, memoryMb, MOST_MEMORY_MB);
        within("processes", 8, processes, MOST_PROCESSES);
        within("outputBytes", 1, outputBytes, MOST_OUTPUT_BYTES);
        within("workMb", 1, workMb, MOST_WORK_MB);
    }

    private static void within(String name, int least, int value, int most) {
        Require.that(value >= least && value <= most, name, "is between " + least + " and " + most, value);
    }

    /** For what compiles a file or runs a small program. */
    public static SandboxLimits usual() {
        return new SandboxLimits(Duration.ofSeconds(20), 768, 128, 256 << 10, 64);
    }

    public SandboxLimits within(Duration other) {
        return new SandboxLimits(other, memoryMb, processes, outputBytes, workMb);
    }
}
