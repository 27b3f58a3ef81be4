package org.mossbank.server.run;

import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.source.Reply;
import org.mossbank.server.source.Sources;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.annotation.Lazy;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.dao.ConcurrencyFailureException;
import org.springframework.dao.DataAccessException;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;

/** Sends what is claimed, several requests at once, for as long as the server runs. */
@Component
@Lazy(false)
class RunWorker {
    private static final Logger LOG = LoggerFactory.getLogger(RunWorker.class);
    /** Ticks between two looks at what other servers left: they are given up after a lease, which is longer. */
    private static final int RECOVER_EVERY = 8;

    private static final int MOST_AT_ONCE = 32;
    private static final long EVERY_MS = 400;
    private static final int SHUT_DOWN_SECONDS = 5;
    /** Whoever cannot reach the database cannot say that it is alive; so nobody is given up before all had time to. */
    static final Duration PATIENCE = Duration.ofSeconds(30);

    private static final Duration FIRST_PAUSE = Duration.ofMillis(100);
    private static final Duration LONGEST_PAUSE = Duration.ofSeconds(2);

    /** Looked up when the first tick comes, so that they do not hold up the start. */
    private final ObjectProvider<RunWork> work;

    private final ObjectProvider<RunClaims> claims;

    private final ObjectProvider<BeforeSending> sending;
    private final ObjectProvider<Sources> sources;
    private final UUID server = UUID.randomUUID();
    private final Map<UUID, Request> underWay = new ConcurrentHashMap<>();
    private final ScheduledExecutorService clockwork = Executors.newScheduledThreadPool(2, named("run-clockwork"));
    /** Since when, by its own count, this server has reached the database without a break; absent while it does not. */
    private @Nullable Long reachedSince;

    private final ExecutorService requests = Executors.newFixedThreadPool(MOST_AT_ONCE, named("run-request"));

    RunWorker(
            ObjectProvider<RunWork> work,
            ObjectProvider<RunClaims> claims,
            ObjectProvider<BeforeSending> sending,
            ObjectProvider<Sources> sources) {
        this.sending = sending;
        this.work = work;
        this.claims = claims;
        this.sources = sources;
    }

    private static java.util.concurrent.ThreadFactory named(String name) {
        AtomicInteger number = new AtomicInteger();
        return r -> {
            Thread thread = new Thread(r, name + "-" + number.incrementAndGet());
            thread.setDaemon(true);
            return thread;
        };
    }

    /** A request with what came so far. */
    private static final class Request {
        private final Sources.Asking asking = new Sources.Asking();
        private volatile String text = "";
        private volatile @Nullable Long firstOutputMs;
    }

    @EventListener(ApplicationReadyEvent.class)
    void begin() {
        clockwork.scheduleWithFixedDelay(this::claimAll, EVERY_MS, EVERY_MS, TimeUnit.MILLISECONDS);
        clockwork.scheduleWithFixedDelay(this::keepAll, EVERY_MS, EVERY_MS, TimeUnit.MILLISECONDS);
    }

    /** Counted by the one thread that claims. */
    private long ticks;

    private void claimAll() {
        try {
            if (ticks % RECOVER_EVERY == 0) {
                List<UUID> forsaken = work.getObject().forsaken();
                if (hasReachedForLong()) {
                    forsaken.forEach(this::recover);
                }
            }
            ticks++;
            for (UUID run : work.getObject().going()) {
                int room = MOST_AT_ONCE - underWay.size();
                if (room > 0) {
                    sending.getObject()
                            .lookedAt(run)
                            .ifPresent(looked -> claims.getObject()
                                    .claim(run, server, room, looked)
                                    .forEach(this::send));
                }
            }
        } catch (RuntimeException e) {
            if (reachedSince != null) {
                LOG.warn("Runs cannot go on for now: {}", e.getMessage());
            }
            reachedSince = null;
        }
    }

    private boolean hasReachedForLong() {
        long now = System.nanoTime();
        Long since = reachedSince;
        if (since == null) {
            reachedSince = now;
            return false;
        }
        return now - since >= PATIENCE.toNanos();
    }

    /** One that cannot be written down now is tried again at the next tick, and holds up no other. */
    private void recover(UUID cell) {
        try {
            work.getObject().recover(cell);
        } catch (DataIntegrityViolationException | ConcurrencyFailureException e) {
            LOG.debug("A forsaken cell is taken up later", e);
        }
    }

    private void send(RunClaims.Claim claim) {
        Request request = new Request();
        underWay.put(claim.cellId(), request);
        requests.execute(() -> ask(claim, request));
    }

    private void ask(RunClaims.Claim claim, Request request) {
        try {
            Reply reply = sources.getObject()
                    .ask(
                            claim.source(),
                            claim.turns(),
                            claim.attempt(),
                            (text, ms) -> {
                                request.text = text;
                                request.firstOutputMs = ms;
                            },
                            request.asking);
            write(claim, reply);
        } catch (RuntimeException e) {
            // The claim runs out, and what was kept of it is written down then.
            LOG.warn("What came of a request could not be written down", e);
        } catch (InterruptedException e) {
            LOG.warn("The server stops before what came of a request could be written down");
            Thread.currentThread().interrupt();
        } finally {
            underWay.remove(claim.cellId());
        }
    }

    /**
     * A reply that was paid for is held until it is written: the database may be away for long, or somebody may add an
     * attempt by hand at the same moment; then its number is taken, and the next is right.
     */
    private void write(RunClaims.Claim claim, Reply reply) throws InterruptedException {
        Duration pause = FIRST_PAUSE;
        while (true) {
            try {
                work.getObject().finish(claim, server, reply, work.getObject().weigh(claim, reply));
                return;
            } catch (DataAccessException | TransactionException | Problem e) {
                LOG.debug("A reply is kept and written down later", e);
            }
            Thread.sleep(pause.toMillis());
            Duration next = pause.multipliedBy(2);
            pause = next.compareTo(LONGEST_PAUSE) > 0 ? LONGEST_PAUSE : next;
        }
    }

    private void keepAll() {
        underWay.forEach((cell, request) -> {
            try {
                if (!work.getObject().keep(cell, server, request.text, request.firstOutputMs)) {
                    request.asking.cutOff();
                }
            } catch (RuntimeException e) {
                LOG.debug("A request's progress was not kept this time", e);
            }
        });
    }

    /** What is under way is cut off and kept, so that a restart finds nothing open. */
    @EventListener(ContextClosedEvent.class)
    void end() throws InterruptedException {
        clockwork.shutdownNow();
        underWay.values().forEach(r -> r.asking.cutOff());
        requests.shutdown();
        if (!requests.awaitTermination(SHUT_DOWN_SECONDS, TimeUnit.SECONDS)) {
            LOG.warn("Some requests did not end in time");
            requests.shutdownNow();
        }
    }
}
