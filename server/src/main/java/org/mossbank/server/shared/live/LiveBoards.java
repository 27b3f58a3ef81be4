package org.mossbank.server.shared.live;

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
import java.util.function.Predicate;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * Tells browsers how long work goes, as server-sent events: the whole of what is followed whenever it has changed. It is asked for
 * again and again, not told, as another server may be doing the work.
 */
@Component
public class LiveBoards implements DisposableBean {
    private static final long EVERY_MS = 500;
    /** The browser comes back by itself; so whoever is not let in any more stops seeing it. */
    private static final Duration LONGEST = Duration.ofMinutes(5);

    private static final int TICKS_OF_SILENCE = 20;

    private final Set<SseEmitter> open = ConcurrentHashMap.newKeySet();
    private final ScheduledExecutorService clockwork = Executors.newSingleThreadScheduledExecutor(r -> {
        Thread thread = new Thread(r, "live-boards");
        thread.setDaemon(true);
        return thread;
    });

    /**
     * @param first  what there is now, read as whoever asks may
     * @param next   reads it anew; a value, which differs when something has changed
     * @param goesOn whether anything may still change; where not, it is told once more and no longer followed
     */
    public <T> SseEmitter follow(T first, Supplier<T> next, Predicate<T> goesOn) {
        SseEmitter emitter = new SseEmitter(LONGEST.toMillis());
        AtomicReference<@Nullable T> sent = new AtomicReference<>();
        AtomicInteger silent = new AtomicInteger();
        open.add(emitter);
        ScheduledFuture<?> ticking = clockwork.scheduleWithFixedDelay(
                () -> {
                    try {
                        T now = sent.get() == null ? first : next.get();
                        if (!now.equals(sent.getAndSet(now))) {
                            emitter.send(SseEmitter.event().name("board").data(now, MediaType.APPLICATION_JSON));
                            silent.set(0);
                            if (!goesOn.test(now)) {
                                emitter.complete();
                            }
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
