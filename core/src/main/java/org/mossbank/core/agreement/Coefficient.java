package org.mossbank.core.agreement;

/** Which coefficient of agreement a decision rule looks at. */
public enum Coefficient {
    /** Krippendorff's alpha, ordinal. */
    ALPHA_ORDINAL("α"),
    /** Gwet's AC2 with ordinal weights. */
    AC2_ORDINAL("AC2");

    private final String sign;

    Coefficient(String sign) {
        this.sign = sign;
    }

    /** How it is written before a number. */
    public String sign() {
        return sign;
    }
}
