package org.mossbank.core.decision;

/** What a study ends in. */
public enum Outcome {
    /** The data do not allow a recommendation under the rule. */
    WITHHELD,
    /** One candidate is ahead of every other, beyond doubt and by the margin. */
    RECOMMENDED,
    /** No two candidates differ by as much as the margin. */
    EQUAL,
    /** Neither a winner nor equality is shown. */
    UNDECIDED
}
