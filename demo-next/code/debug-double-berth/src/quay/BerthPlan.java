package quay;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;

/** Which ship lies at which berth, and when. */
public final class BerthPlan {
    private final List<Booking> bookings = new ArrayList<>();

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
