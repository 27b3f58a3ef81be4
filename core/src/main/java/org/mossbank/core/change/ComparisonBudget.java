package org.mossbank.core.change;

import org.jspecify.annotations.Nullable;

/**
 * What comparing the code of one answer may cost. Answers are written by machines and may mean ill: without a bound, few
 * kilobytes of blocks keep a processor busy for minutes. Counted in steps, each a comparison of two lines or a look-up of
 * one, so that the same answer is always cut off at the same place.
 */
public final class ComparisonBudget {
    /** Takes a processor well under a second. */
    public static final long MOST_STEPS = 20_000_000;

    /** Blocks of code of an answer that are looked at. */
    public static final int MOST_BLOCKS = 1_000;

    /** Files whose changes are shown. */
    public static final int MOST_FILES = 1_000;

    /** For all answers that one request brings: a few seconds of a processor. */
    private static final long MOST_STEPS_A_REQUEST = 400_000_000;

    private final long most;
    private final @Nullable ComparisonBudget around;
    private long used;

    private ComparisonBudget(long most, @Nullable ComparisonBudget around) {
        this.most = most;
        this.around = around;
    }

    /** For one answer. */
    public static ComparisonBudget whole() {
        return of(MOST_STEPS);
    }

    /** For many answers together, each with a budget of its own {@link #within} it. */
    public static ComparisonBudget ofRequest() {
        return of(MOST_STEPS_A_REQUEST);
    }

    static ComparisonBudget of(long steps) {
        return new ComparisonBudget(steps, null);
    }

    /** For one answer of several, as long as there is anything left for all. */
    public ComparisonBudget within() {
        return new ComparisonBudget(MOST_STEPS, this);
    }

    /** Signals that comparing has to stop. */
    static final class Spent extends RuntimeException {
        private static final long serialVersionUID = 1L;

        private Spent() {
            super("the budget of comparing is spent", null, false, false);
        }
    }

    /** @throws Spent if that is more than is left */
    void spend(long steps) {
        used += steps;
        if (around != null) {
            around.spend(steps);
        }
        if (used > most) {
            throw new Spent();
        }
    }

    boolean isSpent() {
        return used > most || around != null && around.isSpent();
    }

    /** Steps taken so far. */
    public long used() {
        return used;
    }
}
