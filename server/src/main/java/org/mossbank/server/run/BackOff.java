package org.mossbank.server.run;

import java.time.Duration;
import org.mossbank.server.source.Reply;

/** How long to wait before a service is asked once more. */
final class BackOff {
    private static final Duration FIRST = Duration.ofSeconds(2);
    private static final Duration LONGEST = Duration.ofMinutes(2);
    private static final int MOST_DOUBLINGS = 10;

    private BackOff() {}

    /**
     * As the service asks; else twice as long with every try.
     *
     * @param tries made so far, 1 or more
     */
    static Duration before(int tries, Reply reply) {
        Duration asked = reply.retryAfter();
        if (asked != null) {
            return asked;
        }
        Duration own = FIRST.multipliedBy(1L << Math.min(tries - 1, MOST_DOUBLINGS));
        return own.compareTo(LONGEST) > 0 ? LONGEST : own;
    }
}
