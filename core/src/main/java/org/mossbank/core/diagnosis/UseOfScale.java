package org.mossbank.core.diagnosis;

import java.util.ArrayList;
import java.util.List;
import org.mossbank.core.agreement.RatingMatrix;

/**
 * How often a rater gave each level of a criterion.
 *
 * @param rater  who
 * @param counts by level
 */
public record UseOfScale(String rater, List<Integer> counts) {
    public UseOfScale {
        counts = List.copyOf(counts);
    }

    /** One entry a rater, in alphabetical order. */
    public static List<UseOfScale> of(RatingMatrix matrix) {
        List<UseOfScale> all = new ArrayList<>();
        for (int r = 0; r < matrix.raters().size(); r++) {
            Integer[] counts = new Integer[matrix.levels()];
            java.util.Arrays.fill(counts, 0);
            for (int u = 0; u < matrix.units().size(); u++) {
                matrix.category(u, r).ifPresent(level -> counts[level]++);
            }
            all.add(new UseOfScale(matrix.raters().get(r), List.of(counts)));
        }
        return all;
    }
}
