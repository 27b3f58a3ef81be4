package org.mossbank.server.shared.database;

import java.util.Objects;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.support.TransactionTemplate;

/** Reads what belongs together as it stood at one moment, and lets the connection go before anything is made of it. */
@Component
public class Snapshot {
    private final TransactionTemplate reading;

    Snapshot(PlatformTransactionManager transactions) {
        reading = new TransactionTemplate(transactions);
        reading.setReadOnly(true);
        reading.setIsolationLevel(TransactionDefinition.ISOLATION_REPEATABLE_READ);
    }

    public <T> T of(Supplier<T> read) {
        AtomicReference<T> result = new AtomicReference<>();
        Databases.readWhole(() -> result.set(reading.execute(status -> read.get())));
        return Objects.requireNonNull(result.get());
    }
}
