package org.mossbank.core.agreement;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * An answer on which raters lie two levels or more apart.
 *
 * <p>\[ d = \max_r g_r - \min_r g_r \ge 2 \] over the raters \(r\) who gave a level; in levels. An answer with one grade, or
 * none, is no split.
 *
 * @param unit     the answer
 * @param distance highest less lowest level
 * @param ratings  all grades given, lowest first, raters in alphabetical order within a level
 */
public record Split(String unit, int distance, List<Rating> ratings) {
    /** The least distance that makes a split, in levels. */
    public static final int LEAST_DISTANCE = 2;

    public Split {
        ratings = List.copyOf(ratings);
    }

    /** The splits of a matrix, widest first, then in the order of units. */
    public static List<Split> of(RatingMatrix matrix) {
        List<Split> splits = new ArrayList<>();
        for (int u = 0; u < matrix.units().size(); u++) {
            List<Rating> ratings = new ArrayList<>(matrix.ratingsOf(u));
            ratings.sort(Comparator.comparingInt(Rating::category));
            int distance =
                    ratings.get(ratings.size() - 1).category() - ratings.get(0).category();
            if (distance >= LEAST_DISTANCE) {
                splits.add(new Split(matrix.units().get(u), distance, ratings));
            }
        }
        splits.sort(Comparator.comparingInt(Split::distance).reversed());
        return splits;
    }
}
