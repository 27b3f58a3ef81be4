package org.mossbank.server.expected;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.shared.Figure;

/**
 * What was expected and claimed, held against what came out.
 *
 * @param expectations oldest first
 * @param measures     claims, by what was measured
 * @param favourites   whether people graded higher what they had expected to do best; absent where nobody's words are matched
 */
public record ExpectedReport(
        List<Expecting> expectations,
        List<MeasureClaimed> measures,
        @Nullable FavouritesView favourites) {

    /**
     * What somebody expected before they saw anything.
     *
     * @param accountId   whose words they are
     * @param lead        whether they lead the study
     * @param expects     in their words; empty if they expected nothing
     * @param usesToday   in their words
     * @param candidateId whom these are taken for; absent where nobody said, or they expected nothing
     * @param byName      whether that is so because the words are its name
     * @param rank        where it came among the models, 1 for the highest; absent where it has no score
     * @param surprised   whether it is out, or others are the best or safe choices and it is not; absent where nothing of that sort can be said
     */
    public record Expecting(
            AccountId accountId,
            String name,
            boolean lead,
            String expects,
            String usesToday,
            Instant declaredAt,
            @Nullable CandidateId candidateId,
            boolean byName,
            @Nullable Integer rank,
            @Nullable Boolean surprised) {}

    /**
     * Figures of one measure.
     *
     * @param measure        what was measured
     * @param higherIsBetter whether more is better
     * @param claims         in the lead's order
     * @param rho   Spearman's rank correlation with scores, so that 1 is the same order; more being better or worse is seen to
     * @param tauB  Kendall's
     * @param pairs candidates with both
     */
    public record MeasureClaimed(
            String measure, boolean higherIsBetter, List<Claimed> claims, Figure rho, Figure tauB, int pairs) {}

    /**
     * @param value  in the measure's own unit
     * @param source where it stands
     * @param asOf   the day on which it stood there
     * @param score  as it stands over all; absent where it has none
     */
    public record Claimed(
            CandidateId candidateId,
            double value,
            String source,
            @Nullable LocalDate asOf,
            @Nullable Double score) {}

    /**
     * @param raters with a favourite that they graded
     * @param higher points by which these graded it higher than others did, against the rest
     * @param p      chance of as much or more were it nothing
     */
    public record FavouritesView(int raters, Figure higher, Figure p) {}
}
