package org.mossbank.server.answer;

import java.util.List;
import org.mossbank.core.change.ChangeSize;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;

/**
 * An answer in a grid: everything but its text.
 *
 * @param followUps how many it got
 * @param unequal   how many of them were written for this answer alone
 */
record AnswerSummary(
        AnswerId id,
        String key,
        PromptId promptId,
        CandidateId candidateId,
        int attempt,
        Outcome outcome,
        Measures measures,
        ChangeSize changed,
        int followUps,
        int unequal) {
    /**
     * @param asked    what it was asked after its first reply
     * @param prepared what every candidate is told next
     */
    static AnswerSummary of(AnswerRepository.InGrid answer, List<String> asked, List<String> prepared) {
        return new AnswerSummary(
                answer.id(),
                answer.key(),
                answer.promptId(),
                answer.candidateId(),
                answer.attempt(),
                answer.outcome(),
                answer.measures(),
                new ChangeSize(
                        answer.filesChanged(), answer.linesAdded(), answer.linesRemoved(), answer.changesComplete()),
                asked.size(),
                AnswerFacts.unequal(asked, prepared));
    }
}
