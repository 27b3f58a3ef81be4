package org.mossbank.server.shared;

import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;

/**
 * An estimate on the wire: a value with its interval, or the words for why there is none.
 *
 * @param value           the estimate
 * @param low             lower limit
 * @param high            upper limit
 * @param level           confidence level of the limits, for example 0.95
 * @param undefinedReason why there is no value; part of a sentence
 * @param noIntervalReason why there are no limits, where there is a value
 */
public record Figure(
        @Nullable Double value,
        @Nullable Double low,
        @Nullable Double high,
        @Nullable Double level,
        @Nullable String undefinedReason,
        @Nullable String noIntervalReason) {

    public static Figure of(Estimate estimate) {
        if (estimate instanceof Estimate.Undefined none) {
            return new Figure(null, null, null, null, none.reason().words(), null);
        }
        return new Figure(estimate.value().orElseThrow(), null, null, null, null, null);
    }

    public static Figure of(Estimate estimate, Interval interval) {
        Figure plain = of(estimate);
        if (plain.value == null) {
            return plain;
        }
        if (interval instanceof Interval.Undefined none) {
            return new Figure(plain.value, null, null, null, null, none.reason().words());
        }
        Interval.Bounds bounds = (Interval.Bounds) interval;
        return new Figure(plain.value, bounds.low(), bounds.high(), bounds.level(), null, null);
    }
}
