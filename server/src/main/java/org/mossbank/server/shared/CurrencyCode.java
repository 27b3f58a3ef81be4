package org.mossbank.server.shared;

/** How currencies are written: by their codes of ISO 4217. */
public final class CurrencyCode {
    /** As a regular expression over all of it. */
    public static final String FORM = "[A-Z]{3}";

    public static final String RULE = "must be three capital letters such as EUR";

    private CurrencyCode() {}
}
