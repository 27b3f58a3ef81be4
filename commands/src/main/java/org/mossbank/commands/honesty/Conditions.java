package org.mossbank.commands.honesty;

/**
 * What a made-up study is like.
 *
 * @param kinds      1 to 4
 * @param prompts    of each kind
 * @param candidates at least 2
 * @param raters     at least 2
 * @param anAnswer   raters an answer
 * @param teams      1, or 2 that share no prompt
 * @param missing    share of single scores that are missing
 * @param attempts   of each candidate on each prompt
 * @param latent     how latent values vary
 * @param raterSort  how raters grade
 * @param truth      where candidates truly stand
 */
record Conditions(
        int kinds,
        int prompts,
        int candidates,
        int raters,
        int anAnswer,
        int teams,
        double missing,
        int attempts,
        Latent latent,
        RaterSort raterSort,
        Truth truth) {

    /** Points between candidates that differ, and the margin of the rule. */
    static final double MARGIN = 10;

    /** How raters turn a latent value into a level. */
    enum RaterSort {
        USUAL,
        GOOD,
        /** Strict and kind ones: twice the usual spread. */
        STRICT_AND_KIND,
        /** The lowest and the highest level are never given. */
        ENDS_AVOIDED,
        NOISY,
        /** One grade in ten is any level. */
        CARELESS,
        /** One rater in eight sees the first candidate 20 points higher. */
        FAVOURING,
        /** Every grade is any level. */
        GUESSING
    }

    /** Where candidates truly stand. */
    enum Truth {
        EQUAL,
        /** All but the last stand the margin above it. */
        ONE_WORSE,
        /** The first two stand the margin above the others. */
        TWO_AHEAD,
        /** The first stands 15 points above the others, who are equal. */
        ONE_FAR_AHEAD,
        /** The first stands 10 points above the others, who are equal. */
        ONE_AHEAD
    }

    /**
     * Standard deviations of latent values, in points.
     *
     * @param base            mean
     * @param candidatePrompt shared by criteria, of candidates from prompt to prompt
     * @param erratic         factor for the last candidate's
     */
    record Latent(double base, double candidatePrompt, double erratic) {
        static final Latent USUAL = new Latent(58, 15, 1);
    }

    static Conditions of(int kinds, int prompts, int candidates, int raters, int anAnswer) {
        return new Conditions(
                kinds, prompts, candidates, raters, anAnswer, 1, 0, 1, Latent.USUAL, RaterSort.USUAL, Truth.EQUAL);
    }

    Conditions with(double share) {
        return new Conditions(
                kinds, prompts, candidates, raters, anAnswer, teams, share, attempts, latent, raterSort, truth);
    }

    Conditions with(Latent other) {
        return new Conditions(
                kinds, prompts, candidates, raters, anAnswer, teams, missing, attempts, other, raterSort, truth);
    }

    Conditions with(RaterSort other) {
        return new Conditions(
                kinds, prompts, candidates, raters, anAnswer, teams, missing, attempts, latent, other, truth);
    }

    Conditions with(Truth other) {
        return new Conditions(
                kinds, prompts, candidates, raters, anAnswer, teams, missing, attempts, latent, raterSort, other);
    }

    Conditions inTeams(int number) {
        return new Conditions(
                kinds, prompts, candidates, raters, anAnswer, number, missing, attempts, latent, raterSort, truth);
    }

    Conditions withAttempts(int number) {
        return new Conditions(
                kinds, prompts, candidates, raters, anAnswer, teams, missing, number, latent, raterSort, truth);
    }

    @Override
    public String toString() {
        return kinds + " × " + prompts + " prompts, " + candidates + " candidates, " + anAnswer + " of " + raters
                + " raters"
                + (teams > 1 ? " in " + teams + " teams" : "")
                + (missing > 0 ? ", " + Math.round(100 * missing) + " % missing" : "")
                + (attempts > 1 ? ", " + attempts + " attempts" : "")
                + (raterSort == RaterSort.USUAL ? "" : ", " + words(raterSort.name()))
                + (latent.equals(Latent.USUAL)
                        ? ""
                        : ", base " + Math.round(latent.base) + ", candidate × prompt "
                                + Math.round(latent.candidatePrompt)
                                + (latent.erratic == 1 ? "" : ", last one × " + latent.erratic))
                + "; " + words(truth.name());
    }

    private static String words(String name) {
        return name.toLowerCase(java.util.Locale.ROOT).replace('_', ' ');
    }
}
