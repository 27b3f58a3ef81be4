package org.mossbank.core.diagnosis;

import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;

/**
 * What is looked at of the grades on one criterion; what is absent leaves all of it in.
 *
 * @param kind   answers of this kind alone
 * @param prompt answers to this prompt alone
 * @param rater  pairs of grades of which one is this rater's
 * @param levels pairs of grades at these two levels
 */
public record Narrowing(
        @Nullable String kind,
        @Nullable String prompt,
        @Nullable String rater,
        @Nullable Levels levels) {
    /** All grades. */
    public static final Narrowing NONE = new Narrowing(null, null, null, null);

    /**
     * Two levels that two raters gave one answer.
     *
     * @param lower  from 0 up
     * @param higher above it
     */
    public record Levels(int lower, int higher) {
        /** @throws IllegalArgumentException if the first is below 0 or not below the second */
        public Levels {
            Require.that(lower >= 0 && lower < higher, "lower", "must be at least 0 and below higher", lower);
        }
    }
}
