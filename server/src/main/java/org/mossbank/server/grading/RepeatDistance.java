package org.mossbank.server.grading;

import java.time.Duration;
import java.time.Instant;
import org.mossbank.server.ids.AccountId;

/**
 * How far apart a rater got the same answers twice.
 *
 * @param sheets places between the first sheet and the second
 */
public record RepeatDistance(AccountId raterId, int sheets, Instant first, Instant second) {
    private static final double MS_A_DAY = Duration.ofDays(1).toMillis();

    public double days() {
        return Duration.between(first, second).toMillis() / MS_A_DAY;
    }
}
