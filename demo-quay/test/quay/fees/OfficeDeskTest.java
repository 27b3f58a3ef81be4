package quay.fees;

import static org.junit.jupiter.api.Assertions.assertEquals;

import org.junit.jupiter.api.Test;

class OfficeDeskTest {
    private final OfficeDesk desk = new OfficeDesk();

    @Test
    void asksForADepositOfWhoPaysMuch() {
        assertEquals(2, desk.invoice("Hedda cargo 40 3", false).size());
        assertEquals(1, desk.invoice("Lys fishing 10 3", false).size());
    }

    @Test
    void letsAnUnknownKindLieForNothing() {
        assertEquals(1, desk.invoice("Wren raft 4 2", true).size());
    }
}
