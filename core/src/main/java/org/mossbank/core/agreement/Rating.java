package org.mossbank.core.agreement;

import org.mossbank.core.estimate.Require;

/**
 * One rater's grade of one unit.
 *
 * @param unit     what was graded, usually an answer
 * @param rater    who graded it
 * @param category position of the level in the declared scale, from 0
 */
public record Rating(String unit, String rater, int category) {
    /** @throws IllegalArgumentException if the category is negative */
    public Rating {
        Require.atLeast("category", 0, category);
    }
}
