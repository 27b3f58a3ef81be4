package org.mossbank.server.trial;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import io.github.resilience4j.bulkhead.Bulkhead;
import io.github.resilience4j.bulkhead.BulkheadConfig;
import io.github.resilience4j.bulkhead.BulkheadFullException;
import java.time.Duration;
import java.util.Objects;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.sandbox.Sandbox;
import org.mossbank.server.shared.Problem;
import org.springframework.stereotype.Component;

/** Trying something while somebody waits for it: a few at once for one person, however many they ask for. */
@Component
class Aside {
    /** One is looked at while the next runs. */
    private static final int MOST_A_PERSON = 2;

    private static final Duration LONGEST_WAIT = Duration.ofSeconds(15);
    private static final int PEOPLE_KEPT = 10_000;

    private final Cache<AccountId, Bulkhead> byPerson =
            Caffeine.newBuilder().maximumSize(PEOPLE_KEPT).build();
    private final CurrentAccount current;

    Aside(CurrentAccount current) {
        this.current = current;
    }

    /** What is tried. */
    @FunctionalInterface
    interface Trying<T> {
        T tried(Sandbox.Stop stop) throws TrialRunner.Stopped;
    }

    /** @throws Problem 503 if its turn does not come in time */
    <T> T run(Trying<T> trying) {
        try {
            return ofPerson().executeSupplier(() -> {
                try {
                    return trying.tried(new Sandbox.Stop());
                } catch (TrialRunner.Stopped e) {
                    throw Problem.busy("The trial was stopped.");
                }
            });
        } catch (BulkheadFullException e) {
            throw Problem.busy("Too much is being tried for you at this moment.");
        }
    }

    private Bulkhead ofPerson() {
        return Objects.requireNonNull(byPerson.get(
                current.id(),
                id -> Bulkhead.of(
                        "trials of one",
                        BulkheadConfig.custom()
                                .maxConcurrentCalls(MOST_A_PERSON)
                                .maxWaitDuration(LONGEST_WAIT)
                                .build())));
    }
}
