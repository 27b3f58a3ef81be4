package quay;

import java.time.Instant;

/** A ship at a berth, from a time until another. */
public record Booking(String ship, int berth, Instant from, Instant until) {
    public Booking {
        if (!until.isAfter(from)) {
            throw new IllegalArgumentException("until must be after from: " + until);
        }
    }
}
