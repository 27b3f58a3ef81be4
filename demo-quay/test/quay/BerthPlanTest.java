package quay;

import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Instant;
import org.junit.jupiter.api.Test;

class BerthPlanTest {
    private final BerthPlan plan = new BerthPlan();

    private static Booking stay(String ship, int berth, int fromHour, int untilHour) {
        Instant day = Instant.parse("2026-10-03T00:00:00Z");
        return new Booking(ship, berth, day.plusSeconds(3600L * fromHour), day.plusSeconds(3600L * untilHour));
    }

    private boolean takesBeside(int fromHour, int untilHour) {
        plan.take(stay("Hedda", 4, 10, 20));
        return plan.take(stay("Lys", 4, fromHour, untilHour));
    }

    @Test
    void takesAFreeBerth() {
        assertTrue(plan.take(stay("Hedda", 4, 10, 20)));
        assertTrue(plan.take(stay("Lys", 5, 10, 20)));
    }

    @Test
    void refusesOneThatBeginsInside() {
        assertFalse(takesBeside(12, 22));
    }

    @Test
    void refusesOneThatEndsInside() {
        assertFalse(takesBeside(8, 12));
    }

    @Test
    void refusesOneThatHoldsAllOfIt() {
        assertFalse(takesBeside(8, 22));
    }

    @Test
    void takesOneThatBeginsWhenTheOtherEnds() {
        assertTrue(takesBeside(20, 22));
    }

    @Test
    void takesOneThatEndsWhenTheOtherBegins() {
        assertTrue(takesBeside(8, 10));
    }
}
