package org.mossbank.server.answer;

import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;

/**
 * What a candidate was told after a reply, and what it replied to that.
 *
 * @param asked Markdown
 * @param reply Markdown; empty if nothing came
 */
public record FollowUp(
        @NotBlank @Size(max = LONGEST_ASKED) String asked,
        @NotNull @Size(max = LONGEST_REPLY) String reply) {
    /** Characters. */
    public static final int LONGEST_ASKED = 20_000;

    /** Characters. */
    public static final int LONGEST_REPLY = 4 << 20;

    /** The most that one answer has, whatever the study's rule. */
    public static final int MOST = 20;
}
