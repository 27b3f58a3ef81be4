package org.mossbank.server.shared.live;

import java.io.IOException;
import java.time.Duration;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Predicate;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * Tells browsers how long work goes, as server-sent events: the whole of what is followed whenever it has changed. It is looked at
 * when the database tells that something changed, on whichever server, and once in a while by itself.
 */
@Component
public class LiveBoards implements DisposableBean {
    /** The browser comes back by itself; so whoever is not let in any more stops seeing it. */
    private static final Duration LONGEST = Duration.ofMinutes(5);

    private static final Duration BY_ITSELF = Duration.ofSeconds(10);
    /** What is told within it is looked at once. */
    private static final long TOGETHER_MS = 300;
    /** After as long without a word it is found out whether anybody is still there. */
    private static final long SILENCE_NANOS = Duration.ofSeconds(9).toNanos();

    private final Set<Following<?>> open = ConcurrentHashMap.newKeySet();
    private final News news;
    private final AtomicBoolean listens = new AtomicBoolean();
    private final AtomicBoolean toLook = new AtomicBoolean();
    private final ScheduledExecutorService clockwork = Executors.newSingleThreadScheduledExecutor(r -> {
        Thread thread = new Thread(r, "live-boards");
        thread.setDaemon(true);
        return thread;
    });

    @Autowired
    LiveBoards(News news) {
        this(news, BY_ITSELF);
    }

    /** @param byItself how often it looks when it was told nothing */
    LiveBoards(News news, Duration byItself) {
        this.news = news;
        clockwork.scheduleWithFixedDelay(
                this::lookAtAll, byItself.toMillis(), byItself.toMillis(), TimeUnit.MILLISECONDS);
    }

    /** One browser, and what it was sent last. */
    private static final class Following<T> {
        private final SseEmitter emitter = new SseEmitter(LONGEST.toMillis());
        private final Supplier<T> next;
        private final Predicate<T> goesOn;

        @Nullable
        private T sent;

        private long lastWord = System.nanoTime();

        Following(Supplier<T> next, Predicate<T> goesOn) {
            this.next = next;
            this.goesOn = goesOn;
        }

        synchronized void tell(T now) {
            try {
                if (now.equals(sent)) {
                    if (System.nanoTime() - lastWord > SILENCE_NANOS) {
                        lastWord = System.nanoTime();
                        emitter.send(SseEmitter.event().comment("still here"));
                    }
                    return;
                }
                sent = now;
                lastWord = System.nanoTime();
                emitter.send(SseEmitter.event().name("board").data(now, MediaType.APPLICATION_JSON));
                if (!goesOn.test(now)) {
                    emitter.complete();
                }
            } catch (IOException | RuntimeException e) {
                emitter.complete();
            }
        }

        void look() {
            T now;
            try {
                now = next.get();
            } catch (RuntimeException e) {
                emitter.complete();
                return;
            }
            tell(now);
        }
    }

    /**
     * @param first  what there is now, read as whoever asks may
     * @param next   reads it anew; a value, which differs when something has changed
     * @param goesOn whether anything may still change; where not, it is told once more and no longer followed
     */
    public <T> SseEmitter follow(T first, Supplier<T> next, Predicate<T> goesOn) {
        if (listens.compareAndSet(false, true)) {
            news.tell(this::lookSoon);
        }
        Following<T> following = new Following<>(next, goesOn);
        following.emitter.onCompletion(() -> open.remove(following));
        following.emitter.onTimeout(following.emitter::complete);
        following.emitter.onError(e -> open.remove(following));
        open.add(following);
        clockwork.execute(() -> following.tell(first));
        // What changed since it was read first.
        lookSoon();
        return following.emitter;
    }

    private void lookSoon() {
        if (toLook.compareAndSet(false, true) && !clockwork.isShutdown()) {
            clockwork.schedule(
                    () -> {
                        toLook.set(false);
                        lookAtAll();
                    },
                    TOGETHER_MS,
                    TimeUnit.MILLISECONDS);
        }
    }

    private void lookAtAll() {
        open.forEach(Following::look);
    }

    /** A server that shuts down would wait for those who follow. */
    @EventListener(ContextClosedEvent.class)
    void end() {
        news.end();
        clockwork.shutdownNow();
        open.forEach(f -> f.emitter.complete());
    }

    @Override
    public void destroy() {
        news.end();
        clockwork.shutdownNow();
    }
}
