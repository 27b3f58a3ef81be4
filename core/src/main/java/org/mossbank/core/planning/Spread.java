package org.mossbank.core.planning;

import org.mossbank.core.estimate.Require;

/**
 * How much scores vary, as standard deviations in points of 100.
 *
 * @param prompt          between prompts, alike for all candidates
 * @param rater           between raters: strict or kind
 * @param candidatePrompt how differently candidates do from prompt to prompt
 * @param candidateRater  how differently raters see a candidate as a whole
 * @param attempt         between attempts of one candidate on one prompt
 * @param rest            what is left: one rater on one answer
 */
public record Spread(
        double prompt, double rater, double candidatePrompt, double candidateRater, double attempt, double rest) {

    /** What small studies with three criteria of five levels usually show; a guess until there are grades. */
    public static final Spread USUAL = new Spread(10, 6, 12, 4, 6, 12);

    /** @throws IllegalArgumentException if one is negative or not finite */
    public Spread {
        for (double sd : new double[] {prompt, rater, candidatePrompt, candidateRater, attempt, rest}) {
            Require.that(Require.finite("spread", sd) >= 0, "spread", "must not be negative", sd);
        }
    }
}
