package org.mossbank.core.estimate;

import java.util.OptionalDouble;
import java.util.function.DoubleUnaryOperator;

/** A computed number, or the reason why these data do not define it. Never NaN, never a silent 0. */
public sealed interface Estimate {

    /** A number that the data define. */
    record Defined(double number) implements Estimate {
        /** @throws IllegalArgumentException if the number is NaN or infinite */
        public Defined {
            Require.finite("number", number);
        }
    }

    /** No number, and why. */
    record Undefined(Reason reason) implements Estimate {}

    static Estimate of(double number) {
        return new Defined(number);
    }

    static Estimate undefined(Reason reason) {
        return new Undefined(reason);
    }

    /** The number, or empty where it is undefined. */
    default OptionalDouble value() {
        return this instanceof Defined defined ? OptionalDouble.of(defined.number()) : OptionalDouble.empty();
    }

    /** The same reason, or the number changed by {@code f}. */
    default Estimate map(DoubleUnaryOperator f) {
        return this instanceof Defined defined ? of(f.applyAsDouble(defined.number())) : this;
    }
}
