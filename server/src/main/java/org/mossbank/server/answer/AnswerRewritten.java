package org.mossbank.server.answer;

import java.util.UUID;

/** The text of an answer is another one now. */
public record AnswerRewritten(UUID studyId, UUID answerId) {}
