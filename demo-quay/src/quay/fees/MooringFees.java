package quay.fees;

/** What a ship pays for lying at a berth. */
public class MooringFees {
    public double fee(String kind, int metres, int days, boolean winter) {
        double fee = 0;
        if (kind.equals("fishing")) {
            fee = metres * 1.2 * days;
        } else if (kind.equals("pleasure")) {
            fee = metres * 3.4 * days;
        } else if (kind.equals("cargo")) {
            fee = metres * 5.1 * days;
        }
        if (winter) {
            fee = fee * 0.6;
        }
        if (days > 30) {
            fee = fee * 0.9;
        }
        return fee;
    }
}
