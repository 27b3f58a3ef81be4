package org.mossbank.core.decision;

/** What a study ends in. */
public enum Outcome {
    /** The data do not allow a recommendation under the rule. */
    WITHHELD,
    /** One candidate is the best, beyond doubt. */
    RECOMMENDED,
    /** None is shown to be the best; one or several are at worst less than the margin below it. */
    SAFE_CHOICES,
    /** Over all kinds nothing is shown; within some kinds there is a best or a safe choice. */
    BY_KIND,
    /** Several candidates may be the best, and none of them is safe. */
    UNDECIDED
}
