package org.mossbank.server.shared;

import io.github.resilience4j.bulkhead.Bulkhead;
import io.github.resilience4j.bulkhead.BulkheadConfig;
import io.github.resilience4j.bulkhead.BulkheadFullException;
import java.time.Duration;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.function.Supplier;
import org.springframework.security.concurrent.DelegatingSecurityContextCallable;

/**
 * A few threads for what keeps a processor busy. The system lets them run when nobody else wants to ({@code jvm.args} says
 * what the priority means to it), so that a grade is taken in while passwords are hashed and answers compared.
 */
public final class GivingWay {
    private final Bulkhead turns;
    private final ExecutorService threads;

    /**
     * @param most        how much goes on at the same time
     * @param longestWait for a turn
     */
    public GivingWay(String name, int most, Duration longestWait) {
        this.turns = bulkhead(name, most, longestWait);
        // As many threads as are needed for those whose turn it is; they end when nobody needs them.
        this.threads = Executors.newCachedThreadPool(task -> new Worker(task, name));
    }

    static Bulkhead bulkhead(String name, int most, Duration longestWait) {
        return Bulkhead.of(
                name,
                BulkheadConfig.custom()
                        .maxConcurrentCalls(most)
                        .maxWaitDuration(longestWait)
                        .build());
    }

    private static final class Worker extends Thread {
        Worker(Runnable task, String name) {
            super(task, name);
            setDaemon(true);
            setPriority(MIN_PRIORITY);
        }
    }

    /**
     * Does it when it is its turn, and returns when it is done. What is part of such work already has its turn.
     *
     * @throws BulkheadFullException if its turn does not come in time
     */
    public <T> T run(Supplier<T> work) {
        if (Thread.currentThread() instanceof Worker) {
            return work.get();
        }
        Supplier<T> carried = Progress.carried(work);
        return turns.executeSupplier(() -> done(threads.submit(new DelegatingSecurityContextCallable<>(carried::get))));
    }

    private static <T> T done(Future<T> result) {
        try {
            return result.get();
        } catch (InterruptedException e) {
            result.cancel(true);
            Thread.currentThread().interrupt();
            throw new IllegalStateException("interrupted", e);
        } catch (ExecutionException e) {
            if (e.getCause() instanceof RuntimeException refused) {
                throw refused;
            }
            if (e.getCause() instanceof Error error) {
                throw error;
            }
            throw new IllegalStateException(e.getCause());
        }
    }
}
