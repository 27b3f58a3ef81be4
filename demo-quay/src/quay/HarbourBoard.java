package quay;

/** What is written on the board by the harbour office. */
public final class HarbourBoard {
    private final BerthPlan plan;

    public HarbourBoard(BerthPlan plan) {
        this.plan = plan;
    }

    public String text() {
        String lines = plan.toString();
        return lines.isEmpty() ? "All berths are free." : "At the quay:\n" + lines;
    }
}
