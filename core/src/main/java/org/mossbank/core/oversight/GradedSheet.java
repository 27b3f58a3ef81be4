package org.mossbank.core.oversight;

import java.util.List;
import java.util.OptionalLong;
import org.mossbank.core.estimate.Require;

/**
 * A sheet that was sent in, as far as oversight looks at it.
 *
 * @param rater      who graded
 * @param place      when the rater had it, from 1
 * @param characters how much there was to read
 * @param activeMs   time that the rater was active on it, in milliseconds; empty if it was not measured
 * @param answers    how many there are on it
 * @param explained  how many of them have a reason or a remark in words
 */
public record GradedSheet(
        String rater,
        int place,
        long characters,
        OptionalLong activeMs,
        int answers,
        int explained,
        List<SheetGrade> grades) {
    /** @throws IllegalArgumentException if a count is below 0 or more answers are explained than there are */
    public GradedSheet {
        Require.that(place >= 1, "place", "must be at least 1", place);
        Require.that(characters >= 0, "characters", "must be at least 0", characters);
        Require.that(answers >= 0, "answers", "must be at least 0", answers);
        Require.that(explained >= 0 && explained <= answers, "explained", "must be 0 to answers", explained);
        grades = List.copyOf(grades);
    }

    /**
     * @param unit    what is graded: an answer on a criterion
     * @param level   from 0
     * @param highest the scale's highest level
     */
    public record SheetGrade(String unit, int level, int highest) {}
}
