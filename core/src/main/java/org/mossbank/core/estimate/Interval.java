package org.mossbank.core.estimate;

/** An interval for a number at a confidence level, or the reason there is none. */
public sealed interface Interval {

    /** Limits at a level, for example 0.95. */
    record Bounds(double low, double high, double level) implements Interval {
        /** @throws IllegalArgumentException if a limit is not finite, the limits are out of order, or the level is not a proportion */
        public Bounds {
            Require.finite("low", low);
            Require.finite("high", high);
            if (low > high) {
                throw new IllegalArgumentException("low must not exceed high " + high + ": " + low);
            }
            Require.proportion("level", level);
        }
    }

    /** No interval, and why. */
    record Undefined(Reason reason) implements Interval {}

    static Interval undefined(Reason reason) {
        return new Undefined(reason);
    }
}
