package org.mossbank.core.oversight;

import java.util.List;
import java.util.OptionalDouble;

/** Something about a rater's grading that does not look like judging, with what shows it. None of them proves anything. */
public sealed interface Oddity {
    /**
     * Sheets that went faster than anybody reads.
     *
     * @param sheets each with its time
     */
    record TooFast(List<FastSheet> sheets) implements Oddity {
        public TooFast {
            sheets = List.copyOf(sheets);
        }
    }

    /**
     * @param activeMs  time on it, in milliseconds
     * @param readingMs time in which its text can be read at all, in milliseconds
     */
    record FastSheet(int place, long activeMs, long readingMs) {}

    /**
     * One level nearly everywhere, where others tell answers apart.
     *
     * @param share       of the rater's grades that are this level, in [0, 1]
     * @param othersShare of the others' grades of the same answers that are this level, in [0, 1]
     */
    record SameLevel(int level, int grades, double share, double othersShare) implements Oddity {}

    /**
     * No word on any answer.
     *
     * @param othersShare of the others' answers that have words, in [0, 1]
     */
    record NoReasons(int answers, double othersShare) implements Oddity {}

    /**
     * Kinder or stricter against the others later than at first.
     *
     * @param first  mean distance from the others' mean on the earlier half of sheets, in levels
     * @param second the same on the later half
     * @param t      Welch's statistic of the difference; empty if neither half varies at all
     */
    record Drift(double first, double second, OptionalDouble t) implements Oddity {}
}
