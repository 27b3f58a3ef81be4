package org.mossbank.core.diagnosis;

import java.util.List;
import org.mossbank.core.agreement.Rating;
import org.mossbank.core.estimate.Estimate;

/**
 * What part of the grades on one criterion consists of. Each list is narrowed down by everything but what it is a list of, so that
 * one can go from one kind, prompt, rater or pair of levels to another. Shares are of the disagreement of their own list, in [0, 1],
 * together 1; without any there are none above 0.
 *
 * @param kinds      by kind
 * @param prompts    by prompt
 * @param levelPairs by two levels
 * @param raterPairs by two raters
 * @param useOfScale how often each rater gave each level, whichever rater or levels are looked at
 * @param parted     answers, widest first, as many as were asked for
 * @param partedCount how many there are
 */
public record Narrowed(
        List<Part> kinds,
        List<Part> prompts,
        List<Part> levelPairs,
        List<RaterPair> raterPairs,
        List<UseOfScale> useOfScale,
        List<Parted> parted,
        int partedCount) {
    public Narrowed {
        kinds = List.copyOf(kinds);
        prompts = List.copyOf(prompts);
        levelPairs = List.copyOf(levelPairs);
        raterPairs = List.copyOf(raterPairs);
        useOfScale = List.copyOf(useOfScale);
        parted = List.copyOf(parted);
    }

    /**
     * A part of the disagreement, by what it belongs to; largest first.
     *
     * @param first  a kind, a prompt, or a level as a number
     * @param second the other level; empty otherwise
     * @param share  of the disagreement
     * @param pairs  of grades that it rests on, those that agree included
     * @param apart  those of them that part
     */
    public record Part(String first, String second, double share, int pairs, int apart) {}

    /**
     * @param first   who comes first in the alphabet
     * @param share   of the disagreement
     * @param kappa   Cohen's kappa with quadratic weights over the answers of the kind and prompt, at whichever levels
     * @param answers that both graded
     * @param apart   those of them on which they part, at the levels looked at
     */
    public record RaterPair(String first, String second, double share, Estimate kappa, int answers, int apart) {}

    /**
     * An answer with a pair of grades of what is looked at that lie {@link org.mossbank.core.agreement.Split#LEAST_DISTANCE} apart or
     * more, or with any such pair if two levels are looked at.
     *
     * @param unit     the answer
     * @param distance its highest less its lowest level, over all raters
     * @param ratings  all its grades, lowest first, raters in alphabetical order within a level
     */
    public record Parted(String unit, int distance, List<Rating> ratings) {
        public Parted {
            ratings = List.copyOf(ratings);
        }
    }
}
