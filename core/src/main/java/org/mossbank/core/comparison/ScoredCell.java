package org.mossbank.core.comparison;

import org.mossbank.core.estimate.Require;

/** The score that one rater's grades give one candidate's answer to one prompt. */
public record ScoredCell(String candidate, String prompt, String rater, double score) {
    /** @throws IllegalArgumentException if the score is not finite */
    public ScoredCell {
        Require.finite("score", score);
    }
}
