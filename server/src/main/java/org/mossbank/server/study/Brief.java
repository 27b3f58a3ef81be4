package org.mossbank.server.study;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;

/**
 * The study's question and its decision rule, closed before grading starts.
 *
 * @param question         what is being decided
 * @param audience         for whom
 * @param background       what a reader needs to know, Markdown
 * @param rule             what must hold for a recommendation
 * @param asksExpectations whether everybody is asked, before they see anything, who they think will win
 * @param raters          what is asked of raters beside levels
 */
public record Brief(
        @NotNull @Size(max = 2000) String question,
        @NotNull @Size(max = 2000) String audience,
        @NotNull @Size(max = 20000) String background,
        @NotNull @Valid RuleTerms rule,
        boolean asksExpectations,
        @NotNull @Valid RaterTerms raters) {

    /** What a study that was just begun starts from. */
    static final Brief BLANK = new Brief("", "", "", RuleTerms.USUAL, true, RaterTerms.USUAL);
}
