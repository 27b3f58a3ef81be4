package org.mossbank.core.planning;

import java.util.random.RandomGenerator;
import org.mossbank.core.estimate.Normal;
import org.mossbank.core.estimate.Require;

/**
 * How grades come to be, for studies that are made up: on each of three criteria an answer has a latent value in points, which
 * thresholds cut into levels 0 to 4; a criterion's score is 25 times its level, and the overall score half of the first and a
 * quarter of each other.
 *
 * <p>\[ x = \text{base} + \text{kind} + \text{lead} + P_p + (CP)_{cp} + A_{cpa} + R_r + (RC)_{rc} + \varepsilon \] each effect
 * normal, with a part that is shared by the criteria and a part of each one's own.
 *
 * @param base            latent value of an answer of no lead to a prompt of no kind
 * @param prompt          how prompts of a kind vary
 * @param candidatePrompt how differently candidates do from prompt to prompt
 * @param attempt         how attempts of one candidate on one prompt vary
 * @param rater           how strict or kind raters are
 * @param raterCandidate  how differently raters see a candidate as a whole
 * @param noise           what is left
 * @param guessed         share of grades that are any level, whatever the answer
 */
public record GradingModel(
        double base,
        Part prompt,
        Part candidatePrompt,
        Part attempt,
        Part rater,
        Part raterCandidate,
        Part noise,
        double guessed) {
    static final int CRITERIA = 3;
    static final int LEVELS = 5;
    private static final double[] WEIGHTS = {0.5, 0.25, 0.25};
    private static final double[] KINDS = {-6, -2, 2, 6};
    private static final double[] THRESHOLDS = {12.5, 37.5, 62.5, 87.5};
    private static final double STEP = 25;

    /** Raters as they usually are: alpha of one criterion is about 0.58. */
    public static final GradingModel MIDDLING = new GradingModel(
            58,
            new Part(8, 6),
            // With one attempt 15 and 10, of which 6 and 6 would differ if it were asked again.
            new Part(Math.sqrt(15 * 15 - 6 * 6), 8),
            new Part(6, 6),
            new Part(5, 3.3),
            new Part(3.3, 2.2),
            new Part(6, 12.6),
            0);

    /** Raters who know the rubric well: alpha of one criterion is about 0.73. */
    public static final GradingModel GOOD = new GradingModel(
            58,
            MIDDLING.prompt,
            MIDDLING.candidatePrompt,
            MIDDLING.attempt,
            new Part(3.3, 2.2),
            new Part(2.5, 1.7),
            new Part(4, 8),
            0);

    /** Raters whose grades say nothing about answers. */
    public static final GradingModel GUESSING = new GradingModel(
            58,
            MIDDLING.prompt,
            MIDDLING.candidatePrompt,
            MIDDLING.attempt,
            MIDDLING.rater,
            MIDDLING.raterCandidate,
            MIDDLING.noise,
            1);

    /** @throws IllegalArgumentException if the share of guesses lies outside [0, 1], or the base is not finite */
    public GradingModel {
        Require.finite("base", base);
        Require.proportion("guessed", guessed);
    }

    /**
     * Standard deviations in points.
     *
     * @param shared of what all criteria have in common
     * @param own    of what each has beside it
     */
    public record Part(double shared, double own) {
        /** @throws IllegalArgumentException if one is negative or not finite */
        public Part {
            Require.that(Require.finite("shared", shared) >= 0, "shared", "must not be negative", shared);
            Require.that(Require.finite("own", own) >= 0, "own", "must not be negative", own);
        }

        /** Adds an effect to each criterion's value. */
        void addTo(double[] values, RandomGenerator random) {
            double common = shared * random.nextGaussian();
            for (int k = 0; k < values.length; k++) {
                values[k] += common + own * random.nextGaussian();
            }
        }

        private double variance() {
            return shared * shared + own * own;
        }
    }

    double ofKind(int kind) {
        return base + KINDS[kind % KINDS.length];
    }

    /** The level that a latent value is given. */
    int level(double latent, RandomGenerator random) {
        if (guessed > 0 && random.nextDouble() < guessed) {
            return random.nextInt(LEVELS);
        }
        int level = 0;
        while (level < THRESHOLDS.length && latent > THRESHOLDS[level]) {
            level++;
        }
        return level;
    }

    /** The score of 100 that levels on the criteria give. */
    static double score(int[] levels) {
        double sum = 0;
        for (int k = 0; k < levels.length; k++) {
            sum += WEIGHTS[k] * STEP * levels[k];
        }
        return sum;
    }

    /** The expected score over prompts and raters of the sort. */
    double expectedScore(double lead, int kinds) {
        double sd = Math.sqrt(prompt.variance()
                + candidatePrompt.variance()
                + attempt.variance()
                + rater.variance()
                + raterCandidate.variance()
                + noise.variance());
        double sum = 0;
        for (int kind = 0; kind < kinds; kind++) {
            for (double threshold : THRESHOLDS) {
                sum += STEP * Normal.upper((threshold - ofKind(kind) - lead) / sd) / kinds;
            }
        }
        return (1 - guessed) * sum + guessed * STEP * (LEVELS - 1) / 2;
    }

    /**
     * The latent lead with which the expected score is so many points higher. Raters who guess see none: then it is what
     * others would see.
     */
    double leadFor(double points, int kinds) {
        GradingModel seen = guessed < 1
                ? this
                : new GradingModel(base, prompt, candidatePrompt, attempt, rater, raterCandidate, noise, 0);
        double low = 0;
        double high = MOST_LEAD;
        double none = seen.expectedScore(0, kinds);
        for (int i = 0; i < HALVINGS; i++) {
            double middle = (low + high) / 2;
            if (seen.expectedScore(middle, kinds) - none < points) {
                low = middle;
            } else {
                high = middle;
            }
        }
        return (low + high) / 2;
    }

    private static final double MOST_LEAD = 400;
    private static final int HALVINGS = 60;
}
