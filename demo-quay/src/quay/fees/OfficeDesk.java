package quay.fees;

import java.util.List;

/** What the harbour office types in. */
public final class OfficeDesk {
    private final Invoices invoices = new Invoices();

    /** @param typed ship, kind, metres and days with blanks between them */
    public List<InvoiceLine> invoice(String typed, boolean winter) {
        String[] words = typed.split(" ");
        return invoices.of(words[0], words[1], Integer.parseInt(words[2]), Integer.parseInt(words[3]), winter);
    }
}
