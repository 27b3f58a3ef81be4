package org.mossbank.core.trial;

import org.jspecify.annotations.Nullable;

/**
 * One thing that a check asks, and how it ended.
 *
 * @param name     of the build, a run or a test
 * @param expected what had to come; empty where only that it ends well was asked
 * @param came     what came, where it was otherwise
 * @param why      in words, where it did not pass
 * @param change   how it ended before the answer and after; absent where nothing was tried before
 */
public record CheckItem(
        Sort sort,
        String name,
        TrialOutcome outcome,
        String expected,
        String came,
        String why,
        @Nullable TestChange change) {
    /** One that was not tried before. */
    public CheckItem(Sort sort, String name, TrialOutcome outcome, String expected, String came, String why) {
        this(sort, name, outcome, expected, came, why, null);
    }

    /** The same, told by how it ended before. */
    public CheckItem with(TestChange told) {
        return new CheckItem(sort, name, outcome, expected, came, why, told);
    }

    /** Whether the trial hangs on it. */
    public boolean counts() {
        return change != TestChange.MAY_FAIL;
    }

    /** What was asked. */
    public enum Sort {
        BUILD,
        RUN,
        TEST,
        /** A step of a page. */
        PAGE
    }

    public static CheckItem passed(Sort sort, String name) {
        return new CheckItem(sort, name, TrialOutcome.PASSED, "", "", "");
    }

    /** Ended otherwise than it had to, without anything to compare. */
    public static CheckItem ended(Sort sort, String name, TrialOutcome outcome, String why) {
        return new CheckItem(sort, name, outcome, "", "", why);
    }
}
