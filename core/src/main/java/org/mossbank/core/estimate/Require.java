package org.mossbank.core.estimate;

import java.util.Map;

/** Checks of arguments: each failure names the argument, the rule it broke and its value. */
public final class Require {
    private Require() {}

    /** @throws IllegalArgumentException unless {@code 0 <= value <= 1}; NaN is refused too */
    public static double proportion(String name, double value) {
        if (!(value >= 0 && value <= 1)) {
            throw new IllegalArgumentException(name + " must lie in [0, 1]: " + value);
        }
        return value;
    }

    /** @throws IllegalArgumentException if the value is NaN or infinite */
    public static double finite(String name, double value) {
        if (!Double.isFinite(value)) {
            throw new IllegalArgumentException(name + " must be finite: " + value);
        }
        return value;
    }

    /** @throws IllegalArgumentException if the value is below the least one allowed */
    public static int atLeast(String name, int least, int value) {
        if (value < least) {
            throw new IllegalArgumentException(name + " must be at least " + least + ": " + value);
        }
        return value;
    }

    /** @throws IllegalArgumentException with the rule if it does not hold */
    public static void that(boolean holds, String name, String rule, Object value) {
        if (!holds) {
            throw new IllegalArgumentException(name + " " + rule + ": " + value);
        }
    }

    /**
     * What a map holds for a key.
     *
     * @throws IllegalArgumentException if it holds nothing
     */
    public static <K, V> V known(Map<K, V> map, K key) {
        V value = map.get(key);
        if (value == null) {
            throw new IllegalArgumentException("key is known: " + key);
        }
        return value;
    }
}
