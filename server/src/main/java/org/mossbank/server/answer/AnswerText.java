package org.mossbank.server.answer;

import java.util.UUID;

/**
 * What a rater may know of an answer: nothing that hints at its candidate can be in here.
 *
 * @param text Markdown
 */
public record AnswerText(UUID id, UUID promptId, Outcome outcome, String text) {
    public AnswerText withText(String other) {
        return new AnswerText(id, promptId, outcome, other);
    }
}
