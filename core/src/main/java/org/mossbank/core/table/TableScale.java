package org.mossbank.core.table;

import org.mossbank.core.agreement.Metric;

/** What values of a table are: names, levels in an order, or numbers whose distances mean something. */
public enum TableScale {
    NOMINAL(Metric.NOMINAL),
    ORDINAL(Metric.ORDINAL),
    INTERVAL(Metric.INTERVAL);

    private final Metric metric;

    TableScale(Metric metric) {
        this.metric = metric;
    }

    Metric metric() {
        return metric;
    }
}
