package org.mossbank.server.answer;

import java.util.UUID;

/** An answer in a grid: everything but its text. */
record AnswerSummary(
        UUID id, String key, UUID promptId, UUID candidateId, int attempt, Outcome outcome, Measures measures) {
    static AnswerSummary of(AnswerView answer) {
        return new AnswerSummary(
                answer.id(),
                answer.key(),
                answer.promptId(),
                answer.candidateId(),
                answer.attempt(),
                answer.outcome(),
                answer.measures());
    }
}
