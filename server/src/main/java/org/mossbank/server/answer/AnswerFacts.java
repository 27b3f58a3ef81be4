package org.mossbank.server.answer;

import java.util.List;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;

/**
 * An answer with whose it is and what it took, without its text: what figures over a whole study are made of.
 *
 * @param asked of it after its first reply, in order
 * @param characters of the first reply, and of what was asked and replied after it
 * @param isWithoutText whether it left nothing that could be graded
 */
public record AnswerFacts(
        AnswerId id,
        String key,
        PromptId promptId,
        CandidateId candidateId,
        int attempt,
        Outcome outcome,
        Measures measures,
        List<String> asked,
        long characters,
        boolean isWithoutText) {
    /**
     * How many of its follow-ups were written for it alone.
     *
     * @param prepared what every candidate is told next
     */
    public int unequalFollowUps(List<String> prepared) {
        return unequal(asked, prepared);
    }

    static int unequal(List<String> asked, List<String> prepared) {
        return (int) asked.stream()
                .filter(a -> prepared.stream().noneMatch(p -> p.strip().equals(a.strip())))
                .count();
    }
}
