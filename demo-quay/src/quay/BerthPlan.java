package quay;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Collectors;

/** Which ship lies at which berth, and when. */
public final class BerthPlan {
    private final List<Booking> bookings = new ArrayList<>();

    /** As it hangs on the quay: a line a booking, by berth and then by time. */
    @Override
    public String toString() {
        return bookings.stream()
                .sorted(Comparator.comparingInt(Booking::berth).thenComparing(Booking::from))
                .map(b -> b.berth() + " " + b.ship())
                .collect(Collectors.joining("\n"));
    }

    /** Takes a booking if its berth is free. */
    public boolean take(Booking wanted) {
        for (Booking other : bookings) {
            if (other.berth() == wanted.berth() && covers(other, wanted.from())) {
                return false;
            }
        }
        bookings.add(wanted);
        return true;
    }

    private static boolean covers(Booking booking, Instant time) {
        return !time.isBefore(booking.from()) && time.isBefore(booking.until());
    }
}
