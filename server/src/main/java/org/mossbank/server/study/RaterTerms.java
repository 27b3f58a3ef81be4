package org.mossbank.server.study;

import jakarta.validation.constraints.NotNull;

/**
 * What a study asks of its raters beside levels.
 *
 * @param reasons         where a grade needs a reason in words
 * @param showsReference  whether a rater reads the reference answer once their own sheet is in
 * @param asksSourceGuess whether a rater is asked, once a sheet is in, which candidate wrote what
 * @param trials         when a rater sees what came of trying an answer's code
 */
public record RaterTerms(
        @NotNull ReasonRule reasons,
        boolean showsReference,
        boolean asksSourceGuess,
        @NotNull TrialsShown trials) {
    /** What a new study starts from. */
    public static final RaterTerms USUAL =
            new RaterTerms(ReasonRule.AT_THE_ENDS, false, false, TrialsShown.AFTER_OWN_GRADE);

    /** When raters see trials: what they see before they grade, they grade by. */
    public enum TrialsShown {
        FROM_THE_START,
        /** Of an answer once they graded it on the criterion that trials speak for. */
        AFTER_OWN_GRADE,
        NEVER
    }

    /** Where an answer's grades need a reason. */
    public enum ReasonRule {
        /** Where a grade is the lowest or highest of three levels or more, or does not apply. */
        AT_THE_ENDS,
        /** For every answer. */
        ALWAYS
    }
}
