package quay.fees;

/** One line of an invoice. */
public class InvoiceLine {
    private String text;
    private double amount;

    public InvoiceLine(String text, double amount) {
        this.text = text;
        this.amount = amount;
    }

    public String getText() {
        return text;
    }

    public double getAmount() {
        return amount;
    }
}
