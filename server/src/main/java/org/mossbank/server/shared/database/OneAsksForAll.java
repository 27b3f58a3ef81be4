package org.mossbank.server.shared.database;

import java.sql.Connection;
import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import java.time.Duration;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.LongSupplier;
import javax.sql.DataSource;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.shared.Failures;
import org.springframework.jdbc.datasource.DelegatingDataSource;

/**
 * Connections to a database that may be away. Once it could not be reached, one request a second tries, and all others are
 * told at once what that one heard: so a page with many parts waits for the database once, and is served again within a
 * second of its being back.
 */
final class OneAsksForAll extends DelegatingDataSource implements AutoCloseable {
    private static final long BETWEEN_TRIES = Duration.ofSeconds(1).toNanos();

    private final Runnable close;
    private final LongSupplier nanoTime;
    private final AtomicLong nextTry = new AtomicLong();

    @Nullable
    private volatile SQLException away;

    /**
     * @param close    closes the target
     * @param nanoTime a clock that never goes back, in nanoseconds
     */
    OneAsksForAll(DataSource target, Runnable close, LongSupplier nanoTime) {
        super(target);
        this.close = close;
        this.nanoTime = nanoTime;
    }

    @Override
    public Connection getConnection() throws SQLException {
        SQLException heard = away;
        if (heard != null && !isTurn()) {
            throw new SQLTransientConnectionException("could not be reached a moment ago", heard.getSQLState(), heard);
        }
        try {
            Connection connection = super.getConnection();
            away = null;
            return connection;
        } catch (SQLTransientConnectionException e) {
            if (Failures.isBelow(e)) {
                nextTry.set(nanoTime.getAsLong() + BETWEEN_TRIES);
                away = e;
            }
            throw e;
        }
    }

    private boolean isTurn() {
        long next = nextTry.get();
        long now = nanoTime.getAsLong();
        return now - next >= 0 && nextTry.compareAndSet(next, now + BETWEEN_TRIES);
    }

    @Override
    public void close() {
        close.run();
    }
}
