package org.mossbank.server.run;

import java.io.IOException;
import java.time.Duration;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * Tells a browser how a run goes, as server-sent events: the whole board whenever it has changed. The board is read from the
 * database, as another server may be doing the work.
 */
@Component
class RunEvents implements DisposableBean {
    private static final long EVERY_MS = 500;
    /** The browser comes back by itself; so whoever is not let in any more stops seeing it. */
    private static final Duration LONGEST = Duration.ofMinutes(5);

    private static final int TICKS_OF_SILENCE = 20;

    private final RunBoards boards;
    private final Set<SseEmitter> open = ConcurrentHashMap.newKeySet();
    private final ScheduledExecutorService clockwork = Executors.newSingleThreadScheduledExecutor(r -> {
        Thread thread = new Thread(r, "run-events");
        thread.setDaemon(true);
        return thread;
    });

    RunEvents(RunBoards boards) {
        this.boards = boards;
    }

    SseEmitter follow(RunView first) {
        SseEmitter emitter = new SseEmitter(LONGEST.toMillis());
        AtomicReference<RunView> sent = new AtomicReference<>();
        AtomicInteger silent = new AtomicInteger();
        open.add(emitter);
        ScheduledFuture<?> ticking = clockwork.scheduleWithFixedDelay(
                () -> {
                    try {
                        RunView now = sent.get() == null ? first : boards.view(first.id());
                        if (!now.equals(sent.getAndSet(now))) {
                            emitter.send(SseEmitter.event().name("board").data(now, MediaType.APPLICATION_JSON));
                            silent.set(0);
                        } else if (silent.incrementAndGet() % TICKS_OF_SILENCE == 0) {
                            // Finds out whether anybody is still there.
                            emitter.send(SseEmitter.event().comment("still here"));
                        }
                    } catch (IOException | RuntimeException e) {
                        emitter.complete();
                    }
                },
                0,
                EVERY_MS,
                TimeUnit.MILLISECONDS);
        emitter.onCompletion(() -> {
            ticking.cancel(false);
            open.remove(emitter);
        });
        emitter.onTimeout(emitter::complete);
        emitter.onError(e -> ticking.cancel(false));
        return emitter;
    }

    /** A server that shuts down would wait for those who follow. */
    @EventListener(ContextClosedEvent.class)
    void end() {
        clockwork.shutdownNow();
        open.forEach(SseEmitter::complete);
    }

    @Override
    public void destroy() {
        clockwork.shutdownNow();
    }
}
