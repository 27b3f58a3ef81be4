package org.mossbank.core.agreement;

/** How far apart two levels count. */
public enum Metric {
    NOMINAL,
    ORDINAL,
    INTERVAL
}
