package org.mossbank.core.trial;

/**
 * One thing that a check asks, and how it ended.
 *
 * @param name     of the build, a run or a test
 * @param expected what had to come; empty where only that it ends well was asked
 * @param came     what came, where it was otherwise
 * @param why      in words, where it did not pass
 */
public record CheckItem(Sort sort, String name, TrialOutcome outcome, String expected, String came, String why) {
    /** What was asked. */
    public enum Sort {
        BUILD,
        RUN,
        TEST
    }

    public static CheckItem passed(Sort sort, String name) {
        return new CheckItem(sort, name, TrialOutcome.PASSED, "", "", "");
    }

    /** Ended otherwise than it had to, without anything to compare. */
    public static CheckItem ended(Sort sort, String name, TrialOutcome outcome, String why) {
        return new CheckItem(sort, name, outcome, "", "", why);
    }
}
