package org.mossbank.server.answer;

import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;

/**
 * What a rater may know of an answer: nothing that hints at its candidate can be in here.
 *
 * @param text Markdown
 */
public record AnswerText(AnswerId id, PromptId promptId, Outcome outcome, String text) {
    public AnswerText withText(String other) {
        return new AnswerText(id, promptId, outcome, other);
    }
}
