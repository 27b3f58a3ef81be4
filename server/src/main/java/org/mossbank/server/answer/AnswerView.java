package org.mossbank.server.answer;

import java.util.List;
import org.mossbank.core.change.ChangeSize;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;

/**
 * An answer with whose it is and what it took. Only the lead sees it, and raters after the round.
 *
 * @param text      the first reply, Markdown
 * @param followUps what came after it, in order
 * @param changed   how much of the starting code it changes
 * @param version   counts up with every change; sent back with the next one
 */
public record AnswerView(
        AnswerId id,
        String key,
        PromptId promptId,
        CandidateId candidateId,
        int attempt,
        Outcome outcome,
        String text,
        List<FollowUp> followUps,
        Measures measures,
        ChangeSize changed,
        long version) {
    /** All of it as one text: what is masked, and what raters read. */
    public String wholeText() {
        return WholeText.of(text, followUps);
    }

    /**
     * The same up to a turn.
     *
     * @param turn 0 for the first reply alone, then the follow-ups
     */
    public String textUpTo(int turn) {
        return WholeText.of(text, followUps.subList(0, turn));
    }

    /** Whether it left nothing that could be graded. */
    public boolean isWithoutText() {
        return text.isBlank() && followUps.isEmpty();
    }
}
