package org.mossbank.server.shared;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import io.github.resilience4j.bulkhead.Bulkhead;
import io.github.resilience4j.bulkhead.BulkheadFullException;
import io.micrometer.core.instrument.MeterRegistry;
import io.micrometer.core.instrument.Timer;
import java.time.Duration;
import java.util.Objects;
import java.util.function.Supplier;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/**
 * Work that keeps a processor busy: comparing, searching, computing. Only so much of it goes on at the same time, for one
 * person and in all, so that grading goes on beside it; and none while a connection to the database is held.
 */
@Component
public class HeavyWork {
    /** One computes while the next is read. */
    static final int MOST_A_PERSON = 2;

    private static final int MOST = Math.max(2, Runtime.getRuntime().availableProcessors());
    private static final Duration LONGEST_WAIT = Duration.ofSeconds(15);
    private static final int PEOPLE_KEPT = 10_000;
    private static final String NOBODY = "";

    private final Timer timer;
    private final GivingWay all = new GivingWay("heavy-work", MOST, LONGEST_WAIT);
    private final Cache<String, Bulkhead> byPerson =
            Caffeine.newBuilder().maximumSize(PEOPLE_KEPT).build();

    HeavyWork(MeterRegistry meters) {
        timer = Timer.builder("mossbank.computations")
                .description("What keeps a processor busy, once it is its turn")
                .register(meters);
    }

    /**
     * Does it when it is its turn.
     *
     * @throws Problem 503 if its turn does not come in time
     * @throws IllegalStateException if a transaction is held
     */
    public <T> T run(Supplier<T> work) {
        refuseTransaction();
        try {
            return ofPerson().executeSupplier(() -> all.run(() -> timer.record(work)));
        } catch (BulkheadFullException e) {
            throw Problem.busy("Too much is being worked out at this moment.");
        }
    }

    /** Background work has its own bounds, and waits for nobody. */
    private Bulkhead ofPerson() {
        Authentication who = SecurityContextHolder.getContext().getAuthentication();
        String name = who == null ? NOBODY : who.getName();
        int most = name.equals(NOBODY) ? Integer.MAX_VALUE : MOST_A_PERSON;
        return Objects.requireNonNull(
                byPerson.get(name, n -> GivingWay.bulkhead("heavy work of one", most, LONGEST_WAIT)));
    }

    private static void refuseTransaction() {
        if (TransactionSynchronizationManager.isActualTransactionActive()) {
            throw new IllegalStateException("heavy work must not hold a transaction");
        }
    }
}
