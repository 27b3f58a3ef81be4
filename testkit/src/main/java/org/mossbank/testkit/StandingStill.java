package org.mossbank.testkit;

import java.io.FileDescriptor;
import java.io.FileOutputStream;
import java.io.PrintStream;
import java.lang.management.ManagementFactory;
import java.lang.management.ThreadInfo;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.testng.IInvokedMethod;
import org.testng.IInvokedMethodListener;
import org.testng.ITestResult;

/** Ends tests that stand still, and says what every thread waits for: whoever started them would wait for as long. */
public final class StandingStill implements IInvokedMethodListener {
    private static final Duration LONGEST = Duration.ofMinutes(12);
    private static final int STATUS = 70;

    private static final Map<IInvokedMethod, Long> BEGUN = new ConcurrentHashMap<>();
    private static final ScheduledExecutorService WATCH = Executors.newSingleThreadScheduledExecutor(task -> {
        Thread thread = new Thread(task, "standing-still");
        thread.setDaemon(true);
        return thread;
    });

    static {
        WATCH.scheduleAtFixedRate(StandingStill::look, 1, 1, TimeUnit.MINUTES);
    }

    @Override
    public void beforeInvocation(IInvokedMethod method, ITestResult result) {
        BEGUN.put(method, System.nanoTime());
    }

    @Override
    public void afterInvocation(IInvokedMethod method, ITestResult result) {
        BEGUN.remove(method);
    }

    private static void look() {
        long now = System.nanoTime();
        BEGUN.forEach((method, begun) -> {
            if (now - begun > LONGEST.toNanos()) {
                end(method);
            }
        });
    }

    private static void end(IInvokedMethod method) {
        // What runs the tests keeps what is printed the usual way, and would lose it.
        PrintStream out = new PrintStream(new FileOutputStream(FileDescriptor.err), true, StandardCharsets.UTF_8);
        out.println(method + " stands still since " + LONGEST.toMinutes() + " minutes");
        for (ThreadInfo thread : ManagementFactory.getThreadMXBean().dumpAllThreads(true, true, Integer.MAX_VALUE)) {
            out.println(thread.getThreadName() + " " + thread.getThreadState() + " " + thread.getLockInfo());
            for (StackTraceElement frame : thread.getStackTrace()) {
                out.println("    at " + frame);
            }
        }
        Runtime.getRuntime().halt(STATUS);
    }
}
