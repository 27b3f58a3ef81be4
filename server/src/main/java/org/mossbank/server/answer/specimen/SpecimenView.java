package org.mossbank.server.answer.specimen;

import java.time.Instant;
import java.util.List;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;

/**
 * An answer that a prompt brought out of the bank, for raters to calibrate by. For the lead: raters get it among the others, and
 * nothing tells them which it is.
 *
 * @param place  among the prompt's, from 1
 * @param text   Markdown
 * @param levels at which it should stand, by criterion
 */
public record SpecimenView(
        AnswerId id, String key, PromptId promptId, int place, String text, List<SpecimenLevel> levels) {
    /**
     * At which level it should stand on a criterion.
     *
     * @param criterion    key
     * @param highestLevel of the criterion where it was said; a rubric with another takes no notice of it
     * @param by           name of who said it
     */
    public record SpecimenLevel(String criterion, int level, int highestLevel, String reason, String by, Instant at) {}
}
