package org.mossbank.server.oversight;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;

/**
 * How grading goes, for the lead alone.
 *
 * @param guesses absent if nobody was asked to guess
 */
record OversightView(List<RaterOversight> raters, @Nullable GuessCount guesses) {

    /**
     * @param activeMs    time on sheets, in milliseconds; absent if none was measured
     * @param msAnAnswer  median over the sheets sent in; absent likewise
     * @param leftMs      what is left at that pace; absent likewise
     * @param answersLeft answers on sheets that are not sent in
     */
    record RaterOversight(
            AccountId raterId,
            @Nullable Long activeMs,
            @Nullable Long msAnAnswer,
            @Nullable Long leftMs,
            int answersLeft,
            List<OddityView> oddities) {}

    /** What an oddity is about. */
    enum OdditySort {
        TOO_FAST,
        SAME_LEVEL,
        NO_REASONS,
        DRIFT
    }

    /** @param evidence in words */
    record OddityView(OdditySort sort, String evidence) {}

    /**
     * How well raters guess who wrote what.
     *
     * @param asked    answers on which a rater said something
     * @param noIdea   of these, without a guess
     * @param right    guesses that name the candidate
     * @param byChance how many would be right if the choices were drawn
     */
    record GuessCount(int asked, int noIdea, int right, double byChance) {}
}
