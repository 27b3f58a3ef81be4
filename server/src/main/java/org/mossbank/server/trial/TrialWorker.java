package org.mossbank.server.trial;

import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.mossbank.server.sandbox.Sandbox;
import org.mossbank.server.shared.Problem;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.annotation.Lazy;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** Runs the trials that it claims, a few at once, for as long as the server runs. */
@Component
@Lazy(false)
class TrialWorker {
    private static final Logger LOG = LoggerFactory.getLogger(TrialWorker.class);
    private static final long EVERY_MS = 500;
    /** Ticks between two looks at what other servers left. */
    private static final int RECOVER_EVERY = 10;

    private static final int SHUT_DOWN_SECONDS = 5;

    private final ObjectProvider<TrialWork> work;
    private final ObjectProvider<TrialRunner> runner;
    private final ObjectProvider<Sandbox> sandbox;
    private final UUID server = UUID.randomUUID();
    private final Map<UUID, Sandbox.Stop> underWay = new ConcurrentHashMap<>();
    private final ScheduledExecutorService clockwork = Executors.newScheduledThreadPool(2, named("trial-clockwork"));
    private final ExecutorService trials = Executors.newCachedThreadPool(named("trial"));
    private long ticks;

    TrialWorker(ObjectProvider<TrialWork> work, ObjectProvider<TrialRunner> runner, ObjectProvider<Sandbox> sandbox) {
        this.work = work;
        this.runner = runner;
        this.sandbox = sandbox;
    }

    private static java.util.concurrent.ThreadFactory named(String name) {
        AtomicInteger number = new AtomicInteger();
        return r -> {
            Thread thread = new Thread(r, name + "-" + number.incrementAndGet());
            thread.setDaemon(true);
            return thread;
        };
    }

    @EventListener(ApplicationReadyEvent.class)
    void begin() {
        clockwork.scheduleWithFixedDelay(this::claimAll, EVERY_MS, EVERY_MS, TimeUnit.MILLISECONDS);
        clockwork.scheduleWithFixedDelay(this::keepAll, EVERY_MS, EVERY_MS, TimeUnit.MILLISECONDS);
    }

    private void claimAll() {
        try {
            if (ticks % RECOVER_EVERY == 0) {
                work.getObject().recover();
            }
            ticks++;
            int room = sandbox.getObject().atOnce() - underWay.size();
            if (room > 0) {
                work.getObject().claim(server, room).forEach(this::send);
            }
        } catch (RuntimeException e) {
            LOG.debug("Trials cannot go on for now", e);
        }
    }

    private void send(TrialWork.Claim claim) {
        Sandbox.Stop stop = new Sandbox.Stop();
        underWay.put(claim.trialId(), stop);
        trials.execute(() -> run(claim, stop));
    }

    private void run(TrialWork.Claim claim, Sandbox.Stop stop) {
        try {
            // Where nothing can be run, it waits for a server that can.
            if (sandbox.getObject().missing().isPresent()) {
                waitForAnother(claim);
                return;
            }
            TrialRunner.Tried tried =
                    runner.getObject().tried(claim.check(), claim.startingCode(), claim.answer(), stop);
            work.getObject().finish(claim.trialId(), server, tried);
        } catch (TrialRunner.Stopped e) {
            giveBack(claim.trialId());
        } catch (Problem e) {
            // Its repository or its toolchain is not to be had here by now.
            LOG.debug("A trial waits for a server that can run it", e);
            waitForAnother(claim);
        } catch (RuntimeException e) {
            LOG.warn("A trial came to no end, and is begun anew", e);
            giveBack(claim.trialId());
        } finally {
            underWay.remove(claim.trialId());
        }
    }

    private void waitForAnother(TrialWork.Claim claim) {
        try {
            Thread.sleep(TimeUnit.SECONDS.toMillis(2));
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        giveBack(claim.trialId());
    }

    /** If that cannot be written down now, the claim runs out by itself. */
    private void giveBack(UUID trial) {
        try {
            work.getObject().giveBack(trial, server);
        } catch (RuntimeException e) {
            LOG.debug("A trial's claim runs out", e);
        }
    }

    private void keepAll() {
        underWay.forEach((trial, stop) -> {
            try {
                if (!work.getObject().keep(trial, server)) {
                    stop.stop();
                }
            } catch (RuntimeException e) {
                LOG.debug("A trial's claim was not kept this time", e);
            }
        });
    }

    @EventListener(ContextClosedEvent.class)
    void end() throws InterruptedException {
        clockwork.shutdownNow();
        underWay.values().forEach(Sandbox.Stop::stop);
        trials.shutdown();
        if (!trials.awaitTermination(SHUT_DOWN_SECONDS, TimeUnit.SECONDS)) {
            trials.shutdownNow();
        }
    }
}
