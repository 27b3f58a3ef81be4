package quay.fees;

import java.util.ArrayList;
import java.util.List;

/** Writes the invoice of a stay. */
public class Invoices {
    private final MooringFees fees = new MooringFees();

    public List<InvoiceLine> of(String ship, String kind, int metres, int days, boolean winter) {
        List<InvoiceLine> lines = new ArrayList<InvoiceLine>();
        double fee = fees.fee(kind, metres, days, winter);
        lines.add(new InvoiceLine("Berth for " + ship, fee));
        if (fee > 500) {
            lines.add(new InvoiceLine("Deposit", fee * 0.2));
        }
        return lines;
    }
}
