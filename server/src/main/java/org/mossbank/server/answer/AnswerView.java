package org.mossbank.server.answer;

import java.util.UUID;

/**
 * An answer with whose it is and what it took. Only the lead sees it, and raters after the round.
 *
 * @param version counts up with every change; sent back with the next one
 */
public record AnswerView(
        UUID id,
        String key,
        UUID promptId,
        UUID candidateId,
        int attempt,
        Outcome outcome,
        String text,
        Measures measures,
        long version) {}
