package quay;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.time.Instant;
import org.junit.jupiter.api.Test;

class HarbourBoardTest {
    private final BerthPlan plan = new BerthPlan();
    private final HarbourBoard board = new HarbourBoard(plan);

    private void stays(String ship, int berth, String from, String until) {
        plan.take(new Booking(ship, berth, Instant.parse(from), Instant.parse(until)));
    }

    @Test
    void saysThatAllBerthsAreFree() {
        assertEquals("All berths are free.", board.text());
    }

    @Test
    void listsShipsByBerth() {
        stays("Lys", 5, "2026-10-03T10:00:00Z", "2026-10-03T20:00:00Z");
        stays("Hedda", 4, "2026-10-03T10:00:00Z", "2026-10-03T20:00:00Z");
        assertEquals("At the quay:\n4 Hedda\n5 Lys", board.text());
    }
}
