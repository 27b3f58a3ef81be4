package org.mossbank.server.shared.database;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.atomic.AtomicReference;
import org.springframework.dao.QueryTimeoutException;
import org.testng.annotations.Test;

public class DatabaseClockTest {
    private static final Instant START = Instant.parse("2026-03-01T10:00:00Z");

    private final AtomicReference<Instant> database = new AtomicReference<>(START);
    private final AtomicLong nanos = new AtomicLong(5_000_000_000L);

    private DatabaseClock clock() {
        return DatabaseClock.of(database::get, nanos::get);
    }

    @Test
    public void countsOnFromTheDatabasesTimeWhateverTheServersClockSays() {
        try (DatabaseClock clock = clock()) {
            nanos.addAndGet(1_500_000_000L);
            assertThat(clock.instant()).isEqualTo(START.plusMillis(1_500));
        }
    }

    @Test
    public void takesTheDatabasesTimeAgainWhenItIsRead() {
        try (DatabaseClock clock = clock()) {
            nanos.addAndGet(20_000_000_000L);
            database.set(START.plusSeconds(25));
            clock.readAgain();
            assertThat(clock.instant()).isEqualTo(START.plusSeconds(25));
        }
    }

    @Test
    public void countsOnWhileTheDatabaseIsAway() {
        AtomicReference<Boolean> away = new AtomicReference<>(false);
        try (DatabaseClock clock = DatabaseClock.of(
                () -> {
                    if (away.get()) {
                        throw new QueryTimeoutException("away");
                    }
                    return START;
                },
                nanos::get)) {
            away.set(true);
            nanos.addAndGet(60_000_000_000L);
            clock.readAgain();
            assertThat(clock.instant()).isEqualTo(START.plusSeconds(60));
        }
    }

    /** Half of the way there and back lies before the database looked. */
    @Test
    public void takesTheMiddleOfTheWayAsTheMoment() {
        AtomicLong steps = new AtomicLong();
        try (DatabaseClock clock = DatabaseClock.of(() -> START, () -> steps.getAndAdd(2_000_000_000L))) {
            // Read at 0 and 2 s, so the time is of 1 s; asked at 4 s.
            assertThat(clock.instant()).isEqualTo(START.plusSeconds(3));
        }
    }
}
