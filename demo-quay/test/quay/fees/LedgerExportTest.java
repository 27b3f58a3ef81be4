package quay.fees;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.List;
import org.junit.jupiter.api.Test;

class LedgerExportTest {
    @Test
    void writesWhatIsKnownOfALine() {
        assertEquals(
                "amount=12.5;text=Berth for Hedda",
                LedgerExport.of(List.of(new InvoiceLine("Berth for Hedda", 12.5))));
    }
}
