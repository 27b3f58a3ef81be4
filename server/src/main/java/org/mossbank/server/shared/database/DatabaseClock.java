package org.mossbank.server.shared.database;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.LongSupplier;
import java.util.function.Supplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The database's time, so that all servers on one database agree, whatever their own clocks say. It is asked for now and
 * then; between, time is counted from there by what no clock setting moves.
 */
public final class DatabaseClock extends Clock implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(DatabaseClock.class);
    private static final Duration EVERY = Duration.ofSeconds(20);

    private final Supplier<Instant> database;
    private final LongSupplier nanos;
    private final ScheduledExecutorService keeper = Executors.newSingleThreadScheduledExecutor(work -> {
        Thread thread = new Thread(work, "database-clock");
        thread.setDaemon(true);
        return thread;
    });
    private volatile Reading last;

    private record Reading(Instant at, long nanos) {}

    private DatabaseClock(Supplier<Instant> database, LongSupplier nanos) {
        this.database = database;
        this.nanos = nanos;
        this.last = read();
    }

    /**
     * @param database asks for its time
     * @param nanos    counts on evenly, from anywhere
     */
    static DatabaseClock of(Supplier<Instant> database, LongSupplier nanos) {
        return new DatabaseClock(database, nanos);
    }

    /** Reads the time again every 20 seconds; while the database is away, it counts on. */
    public static DatabaseClock kept(Supplier<Instant> database) {
        DatabaseClock clock = of(database, System::nanoTime);
        clock.keeper.scheduleWithFixedDelay(clock::readAgain, EVERY.toSeconds(), EVERY.toSeconds(), TimeUnit.SECONDS);
        return clock;
    }

    void readAgain() {
        try {
            last = read();
        } catch (RuntimeException e) {
            LOG.debug("The database's time could not be read this time", e);
        }
    }

    /** Half of the way there and back lies before the database looked at its clock. */
    private Reading read() {
        long before = nanos.getAsLong();
        Instant at = database.get();
        return new Reading(at, before + (nanos.getAsLong() - before) / 2);
    }

    @Override
    public Instant instant() {
        Reading reading = last;
        return reading.at.plusNanos(nanos.getAsLong() - reading.nanos);
    }

    @Override
    public ZoneId getZone() {
        return ZoneOffset.UTC;
    }

    @Override
    public Clock withZone(ZoneId zone) {
        throw new UnsupportedOperationException("times are kept in UTC");
    }

    @Override
    public void close() {
        keeper.shutdownNow();
    }
}
