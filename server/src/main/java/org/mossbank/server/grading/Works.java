package org.mossbank.server.grading;

import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.turns.TurnVerdict;

/** Whether an answer's code works, as its rater found it. */
public enum Works {
    AS_IS,
    /** After a trivial repair. */
    AFTER_REPAIR,
    NOT,
    /** It does not, and says so itself. */
    GAVE_UP,
    /** It does not, and says that it does. */
    SAID_DONE,
    NOT_TRIED;

    private static final double HALF = 0.5;

    /** Whether what a rater found is contrary to what a trial found; not if either said nothing. */
    public static boolean isContrary(@Nullable Works found, @Nullable Works byTrial) {
        return found != null && byTrial != null && found != NOT_TRIED && found.plain() != byTrial.plain();
    }

    /** Without how it came that it does not. */
    private Works plain() {
        return this == GAVE_UP || this == SAID_DONE ? NOT : this;
    }

    /** How many tried it. */
    public static long tried(Map<Works, Long> times) {
        return times.entrySet().stream()
                .filter(e -> e.getKey() != NOT_TRIED)
                .mapToLong(Map.Entry::getValue)
                .sum();
    }

    /** What more than half of those say who tried it; empty where nothing has more than half. */
    public static Optional<Works> most(Map<Works, Long> times) {
        double half = HALF * tried(times);
        return times.entrySet().stream()
                .filter(e -> e.getKey() != NOT_TRIED && e.getValue() > half)
                .map(Map.Entry::getKey)
                .findFirst();
    }

    /** The same as it is said of a reply; empty where it works only once repaired, or was not tried. */
    public Optional<TurnVerdict> verdict() {
        return switch (this) {
            case AS_IS -> Optional.of(TurnVerdict.DOES);
            case NOT -> Optional.of(TurnVerdict.DOES_NOT);
            case GAVE_UP -> Optional.of(TurnVerdict.GAVE_UP);
            case SAID_DONE -> Optional.of(TurnVerdict.SAID_DONE);
            case AFTER_REPAIR, NOT_TRIED -> Optional.empty();
        };
    }
}
