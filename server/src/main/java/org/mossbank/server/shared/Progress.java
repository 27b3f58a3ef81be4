package org.mossbank.server.shared;

import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * How far a long piece of work has got, told by whoever does a part of it, however deep, and whether it is still wanted.
 * Work that nobody follows tells nobody.
 */
public final class Progress {
    private static final ThreadLocal<@Nullable Progress> FOLLOWED = new ThreadLocal<>();

    private volatile Seen seen = new Seen("", 0, 0);
    private volatile boolean unwanted;

    /**
     * @param stage what is done at the moment, in a phrase; empty before it begins
     * @param done  of {@code total}
     * @param total parts of this stage; 0 where they cannot be counted
     */
    public record Seen(String stage, long done, long total) {}

    /** Signals that the work is not wanted any more. */
    public static final class Unwanted extends RuntimeException {
        private static final long serialVersionUID = 1L;

        private Unwanted() {
            super("the work is not wanted any more");
        }
    }

    /** Does the work in this thread, followed. */
    public <T> T follow(Supplier<T> work) {
        FOLLOWED.set(this);
        try {
            stop();
            return work.get();
        } finally {
            FOLLOWED.remove();
        }
    }

    /** The work as another thread does it, followed by whoever follows this thread. */
    static <T> Supplier<T> carried(Supplier<T> work) {
        Progress progress = FOLLOWED.get();
        return progress == null ? work : () -> progress.follow(work);
    }

    public Seen seen() {
        return seen;
    }

    /** The work ends at the next part that it tells of. */
    public void giveUp() {
        unwanted = true;
    }

    /**
     * A new stage begins.
     *
     * @throws Unwanted if the work was given up
     */
    public static void stage(String stage, long total) {
        Progress progress = FOLLOWED.get();
        if (progress != null) {
            progress.stop();
            progress.seen = new Seen(stage, 0, total);
        }
    }

    /**
     * So many more parts of the stage are done.
     *
     * @throws Unwanted if the work was given up
     */
    public static void advance(long parts) {
        Progress progress = FOLLOWED.get();
        if (progress != null) {
            progress.stop();
            Seen before = progress.seen;
            progress.seen = new Seen(before.stage, Math.min(before.total, before.done + parts), before.total);
        }
    }

    private void stop() {
        if (unwanted) {
            throw new Unwanted();
        }
    }
}
