package org.mossbank.server.agreement;

import org.mossbank.server.shared.Figure;

/** How a value lies against the agreement floor. */
public enum Verdict {
    /** The whole interval lies at or above the floor. */
    ABOVE,
    /** The interval straddles the floor. */
    UNCERTAIN,
    /** The whole interval lies below the floor. */
    BELOW,
    UNDEFINED;

    static Verdict of(Figure alpha, double floor) {
        if (alpha.value() == null) {
            return UNDEFINED;
        }
        double low = alpha.low() == null ? Double.NEGATIVE_INFINITY : alpha.low();
        double high = alpha.high() == null ? Double.POSITIVE_INFINITY : alpha.high();
        if (low >= floor) {
            return ABOVE;
        }
        return high < floor ? BELOW : UNCERTAIN;
    }
}
